import { memo } from 'react';
import { itemAt } from '../../core/values/item-at';
import type { Paints } from '../../core/rules/terms';
import { useSessionState } from '../sheet/use-session';
import { PickFields } from './parts/PickFields';
import { PickWord } from './parts/PickWord';

const WORDS = { cell: 'that cell', record: 'the whole record', fields: 'these fields of the record:' } as const;

/** Where a rule paints in the record in which it matches. */
export const PaintsPart = memo(function PaintsPart({
  paints,
  onPick,
}: {
  readonly paints: Paints;
  readonly onPick: (paints: Paints) => void;
}) {
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const kind = typeof paints === 'object' ? 'fields' : paints;
  return (
    <>
      <PickWord
        label="Paints"
        value={kind}
        words={WORDS}
        onPick={(next) => onPick(next === 'fields' ? { fields: [itemAt(fields, 0).id] } : next)}
      />
      {typeof paints === 'object' && (
        <>
          {' '}
          <PickFields
            label="Painted fields"
            between="and"
            value={paints.fields}
            onPick={(ids) => onPick({ fields: ids })}
          />
        </>
      )}
    </>
  );
});
