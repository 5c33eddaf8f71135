import { memo } from 'react';
import { itemAt } from '../../core/values/item-at';
import type { Reads } from '../../core/rules/terms';
import { cellAddress, writeArea } from '../../core/sheet/address';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import { CellInput } from './parts/CellInput';
import { Pick } from './parts/Pick';
import { PickFields } from './parts/PickFields';
import { PickRoles } from './parts/PickRoles';

/** The cells that a rule tests: fields, in the records or in rows of other roles too, or ranges. */
export const ReadsPart = memo(function ReadsPart({
  reads,
  onPick,
}: {
  readonly reads: Reads;
  readonly onPick: (reads: Reads) => void;
}) {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const reach = (id: string) => {
    const { selection } = session.get();
    if (id === 'cells') onPick({ cells: selectedAreas(selection).map(writeArea).join(' ') || cellAddress(0, 0) });
    else onPick({ fields: [fields[selection.anchor.column]?.id ?? itemAt(fields, 0).id] });
  };
  return (
    <>
      {'fields' in reads ? (
        <>
          <PickFields label="Reads" value={reads.fields} onPick={(ids) => onPick({ ...reads, fields: ids })} /> in{' '}
          <PickRoles value={reads.roles ?? ['record']} onPick={(roles) => onPick({ ...reads, roles })} />
        </>
      ) : (
        <>
          the cells{' '}
          <CellInput label="Cells read" value={reads.cells} takes="ranges" onChange={(cells) => onPick({ cells })} />
        </>
      )}{' '}
      <Pick
        label="Reach"
        value={'fields' in reads ? 'fields' : 'cells'}
        shown="▾"
        options={[
          { id: 'fields', words: 'fields, with the records still to come' },
          { id: 'cells', words: 'just the selected cells' },
        ]}
        onPick={reach}
      />
    </>
  );
});
