import { Checkbox, Popover } from '@mantine/core';
import { useFormatter, useTranslations } from 'use-intl';
import { ROW_ROLES, type RowRole } from '../../../core/sheet/row-role';
import classes from '../Bench.module.css';

const ROLE_WORDS = {
  record: 'records',
  title: 'titles',
  header: 'headers',
  group: 'groups',
  total: 'totals',
  note: 'notes',
} as const satisfies Record<RowRole, string>;

/** The roles of the rows that a rule reads. At least one stays. */
export function PickRoles({
  value,
  onPick,
}: {
  readonly value: readonly RowRole[];
  readonly onPick: (roles: readonly RowRole[]) => void;
}) {
  const t = useTranslations('bench');
  const { list } = useFormatter();
  const shown = ROW_ROLES.filter((role) => value.includes(role)).map((role) => t(ROLE_WORDS[role]));
  const toggle = (role: RowRole) => {
    const wanted = value.includes(role) ? value.filter((other) => other !== role) : [...value, role];
    if (wanted.length) onPick(ROW_ROLES.filter((each) => wanted.includes(each)));
  };
  return (
    <Popover position="top-start" shadow="md" trapFocus>
      <Popover.Target>
        <button type="button" className={classes.pick} aria-label={t('rowsReadShown', { shown: list(shown) })}>
          {list(shown)}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {ROW_ROLES.map((role) => (
          <Checkbox
            key={role}
            my={6}
            color="ink"
            label={t(ROLE_WORDS[role])}
            checked={value.includes(role)}
            onChange={() => toggle(role)}
          />
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
