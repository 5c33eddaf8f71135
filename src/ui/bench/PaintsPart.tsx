import { memo, useState } from 'react';
import type { Paints, Reads } from '../../core/rules/terms';
import { useSessionState } from '../sheet/use-session';
import { fieldsRead } from './fields-read';
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
