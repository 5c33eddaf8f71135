import { Checkbox, Popover } from '@mantine/core';
import { ROW_ROLES, type RowRole } from '../../../core/sheet/row-role';
import classes from '../Bench.module.css';

const ROLE_WORDS: Record<RowRole, string> = {
  record: 'records',
  title: 'titles',
  header: 'headers',
  group: 'groups',
  total: 'totals',
  note: 'notes',
};

/** The roles of the rows that a rule reads. At least one stays. */
export function PickRoles({
  value,
  onPick,
}: {
  readonly value: readonly RowRole[];
  readonly onPick: (roles: readonly RowRole[]) => void;
}) {
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
          <Checkbox
            key={role}
            my={6}
            color="ink"
            label={ROLE_WORDS[role]}
            checked={value.includes(role)}
            onChange={() => toggle(role)}
          />
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
