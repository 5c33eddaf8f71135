import { memo, useState } from 'react';
import { itemAt } from '../../core/values/item-at';
import { parseRanges } from '../../core/sheet/address';
import type { Paints, Reads } from '../../core/rules/terms';
import type { ShownField } from '../../protocol/sheet-view';
import { useSessionState } from '../sheet/use-session';
import { PickFields } from './parts/PickFields';
import { PickWord } from './parts/PickWord';

const WORDS = { cell: 'that cell', record: 'the whole record', fields: 'these fields of the record:' } as const;

interface Props {
  readonly reads: Reads;
  readonly paints: Paints;
  readonly onPick: (paints: Paints) => void;
}

/** Where a rule paints in the record in which it matches. */
export const PaintsPart = memo(function PaintsPart({ reads, paints, onPick }: Props) {
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  // Fields that were just chosen to be painted are named next.
  const [isNew, setNew] = useState(false);
  const kind = typeof paints === 'object' ? 'fields' : paints;
  return (
    <>
      <PickWord
        label="Paints"
        value={kind}
        words={WORDS}
        onPick={(next) => {
          setNew(next === 'fields');
          onPick(next === 'fields' ? { fields: fieldsRead(reads, fields) } : next);
        }}
      />
      {typeof paints === 'object' && (
        <>
          {' '}
          <PickFields
            label="Painted fields"
            between="and"
            value={paints.fields}
            opensAtOnce={isNew}
            onPick={(ids) => onPick({ fields: ids })}
          />
        </>
      )}
    </>
  );
});

/** The fields that a rule reads: those named, or those in which its ranges begin. */
function fieldsRead(reads: Reads, fields: readonly ShownField[]): readonly string[] {
  if ('fields' in reads) return reads.fields;
  const columns = (parseRanges(reads.cells) ?? []).map(({ left }) => left);
  const found = fields.filter((_, at) => columns.includes(at)).map(({ id }) => id);
  return found.length > 0 ? found : [itemAt(fields, 0).id];
}
