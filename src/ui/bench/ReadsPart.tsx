import { Checkbox, Popover } from '@mantine/core';
import { memo } from 'react';
import type { Reads } from '../../core/rules/rule';
import { cellAddress, writeArea } from '../../core/sheet/address';
import { ROW_ROLES, type RowRole } from '../../core/sheet/row-role';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Bench.module.css';
import { CellInput } from './parts/CellInput';
import { Pick } from './parts/Pick';
import { PickFields } from './parts/PickFields';

/** What a rule tests: fields, in the records or in rows of other roles too, or certain cells. */
export const ReadsPart = memo(function ReadsPart({ reads, onPick }: { readonly reads: Reads; readonly onPick: (reads: Reads) => void }) {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const reach = (id: string) => {
    const { selection } = session.get();
    if (id === 'cells') onPick({ cells: selectedAreas(selection).map(writeArea).join(' ') || cellAddress(0, 0) });
    else onPick({ fields: [fields[selection.anchor.column]?.id ?? fields[0]!.id] });
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
          the cells <CellInput label="Cells read" value={reads.cells} takes="ranges" onChange={(cells) => onPick({ cells })} />
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

const ROLE_WORDS: Record<RowRole, string> = {
  record: 'records',
  title: 'titles',
  header: 'headers',
  group: 'groups',
  total: 'totals',
  note: 'notes',
};

function PickRoles({ value, onPick }: { readonly value: readonly RowRole[]; readonly onPick: (roles: readonly RowRole[]) => void }) {
  const shown = ROW_ROLES.filter((role) => value.includes(role)).map((role) => ROLE_WORDS[role]);
  const toggle = (role: RowRole) => {
    const wanted = value.includes(role) ? value.filter((other) => other !== role) : [...value, role];
    if (wanted.length) onPick(ROW_ROLES.filter((each) => wanted.includes(each)));
  };
  return (
    <Popover position="top-start" shadow="md" trapFocus>
      <Popover.Target>
        <button type="button" className={classes.pick} aria-label={`Rows read: ${shown.join(' and ')}`}>
          {shown.join(' and ')}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {ROW_ROLES.map((role) => (
          <Checkbox key={role} my={6} color="ink" label={ROLE_WORDS[role]} checked={value.includes(role)} onChange={() => toggle(role)} />
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
