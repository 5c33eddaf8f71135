import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ActionIcon, Menu } from '@mantine/core';
import {
  IconArrowBarRight,
  IconArrowDown,
  IconArrowsMove,
  IconArrowUp,
  IconCopy,
  IconDotsVertical,
  IconFilter,
  IconFlag,
  IconFolder,
  IconHistory,
  IconLock,
  IconPower,
  IconSquareCheck,
  IconStack2,
  IconUser,
  IconTableShare,
  IconTrash,
} from '@tabler/icons-react';
import { memo } from 'react';
import type { Look } from '../../core/looks/look';
import { kindOf } from '../../core/rules/kinds/registry';
import type { LegendEntry } from '../../protocol/engine-messages';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';
import { Swatch } from './Swatch';

interface Props {
  readonly entry: LegendEntry;
  readonly place: number;
  readonly count: number;
}

/** The looks that an entry stands for: the rule's own, or those of its outcomes. */
const looksOf = ({ rule }: LegendEntry): readonly Look[] => {
  const looks = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? null];
  return looks.filter((look) => look !== null);
};

/** One rule of the legend. The engine sends all entries when one has changed; only that one is rendered. */
export const LegendItem = memo(function LegendItem({ entry, place, count }: Props) {
  const session = useSession();
  const isOpen = useSessionState((state) => state.bench?.draft.id === entry.id);
  const chosen = useSessionState((state) => state.chosen);
  const isChosen = chosen.includes(entry.id);
  // An action on a chosen rule is applied to all that are chosen.
  const ids = isChosen ? chosen : [entry.id];
  const { rules } = session;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: entry.id,
  });
  const looks = looksOf(entry);
  const numbers = `${entry.matched.toLocaleString('en')} of ${entry.read.toLocaleString('en')}`;
  return (
    <li
      ref={setNodeRef}
      className={classes.entry}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      data-open={isOpen}
      data-off={!entry.rule.on}
      data-dragging={isDragging}
      data-chosen={isChosen}
      data-grouped={entry.rule.group !== undefined}
      data-rule={entry.id}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className={classes.grip}
        {...attributes}
        {...listeners}
        aria-label={`Move ${entry.rule.name}, now in place ${place + 1} of ${count}`}
      >
        {place + 1}
      </button>
      <button
        type="button"
        className={classes.open}
        onClick={(event) => (event.ctrlKey || event.metaKey ? rules.toggleChosen(entry.id) : rules.openRule(entry.id))}
        title={entry.sentence}
        aria-pressed={isOpen}
      >
        <span className={classes.swatches} aria-hidden>
          {looks.length <= 1 ? (
            <Swatch look={looks[0] ?? null} />
          ) : (
            looks.slice(0, 4).map((look, at) => <Swatch key={at} look={look} text="9.1" isSmall />)
          )}
        </span>
        <span className={classes.name}>
          {entry.rule.name || 'New rule'}
          {entry.isPersonal && <span className={classes.personal}> only you</span>}
        </span>
        <span className={classes.count} data-testid="count">
          {entry.problem ? (
            <>
              <IconFlag size={12} aria-hidden /> {entry.problem.message}
            </>
          ) : entry.rule.on ? (
            numbers
          ) : (
            'off'
          )}
        </span>
        {entry.rule.note && <span className={classes.note}>{entry.rule.note}</span>}
        <span className={classes.bar} aria-hidden>
          <span style={{ width: `${entry.read ? (100 * entry.matched) / entry.read : 0}%` }} />
        </span>
      </button>
      <Menu position="bottom-end" withinPortal>
        <Menu.Target>
          <ActionIcon variant="subtle" color="ink" size="md" aria-label={`What to do with ${entry.rule.name}`}>
            <IconDotsVertical size={15} stroke={1.5} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item
            leftSection={<IconPower size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => rules.changeRules(ids, { on: !entry.rule.on })}
          >
            {entry.rule.on ? 'Switch off' : 'Switch on'}
          </Menu.Item>
          <Menu.Item
            leftSection={<IconArrowUp size={15} stroke={1.5} />}
            disabled={place === 0}
            onClick={() => rules.moveRule(entry.id, place - 1)}
          >
            Judge earlier
          </Menu.Item>
          <Menu.Item
            leftSection={<IconArrowDown size={15} stroke={1.5} />}
            disabled={place === count - 1}
            onClick={() => rules.moveRule(entry.id, place + 1)}
          >
            Judge later
          </Menu.Item>
          <Menu.Item
            leftSection={<IconLock size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => rules.changeRules(ids, { settles: !entry.rule.settles })}
          >
            {entry.rule.settles ? 'Let later rules add to it' : 'Settle: later rules leave its cells alone'}
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item
            leftSection={<IconFilter size={15} stroke={1.5} />}
            onClick={() => session.filterBy({ rule: entry.id })}
          >
            Show only its records
          </Menu.Item>
          <Menu.Item
            leftSection={<IconCopy size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => rules.duplicateRule(entry.id)}
          >
            Duplicate
          </Menu.Item>
          <Menu.Item
            leftSection={<IconArrowBarRight size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => rules.carryToSelection(ids)}
          >
            Carry to the selected cells
          </Menu.Item>
          <Menu.Item
            leftSection={<IconArrowsMove size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => rules.reachSelection(ids)}
          >
            Read the selected cells instead
          </Menu.Item>
          <Menu.Item
            leftSection={<IconTableShare size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => session.openDialog({ what: 'sheet', rules: ids })}
          >
            Carry to another sheet…
          </Menu.Item>
          <Menu.Item
            leftSection={<IconFolder size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => session.openDialog({ what: 'group', rules: ids })}
          >
            Put in a group…
          </Menu.Item>
          <Menu.Item
            leftSection={<IconUser size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() =>
              void session.withErrorMessage(
                session.ask({ kind: 'own-rules', rules: ids, whose: entry.isPersonal ? 'everybodys' : 'mine' }),
              )
            }
          >
            {entry.isPersonal ? 'Give it to everybody' : 'Keep it to myself'}
          </Menu.Item>
          <Menu.Item
            leftSection={<IconStack2 size={15} stroke={1.5} />}
            disabled={entry.isDraft}
            onClick={() => session.openDialog({ what: 'set', rules: ids })}
          >
            Keep as a rule set…
          </Menu.Item>
          <Menu.Item
            leftSection={<IconSquareCheck size={15} stroke={1.5} />}
            onClick={() => rules.toggleChosen(entry.id)}
          >
            {isChosen ? 'Choose no longer' : 'Choose, to change several together'}
          </Menu.Item>
          <Menu.Item
            component="a"
            leftSection={<IconHistory size={15} stroke={1.5} />}
            href={`/sheets/${encodeURIComponent(session.sheet)}/history?rule=${encodeURIComponent(entry.id)}`}
          >
            What was done to it
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item leftSection={<IconTrash size={15} stroke={1.5} />} onClick={() => rules.removeRules(ids)}>
            Remove{ids.length > 1 ? ` ${ids.length} rules` : ''}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}, isSame);

function isSame(one: Props, other: Props): boolean {
  return (
    one.place === other.place && one.count === other.count && JSON.stringify(one.entry) === JSON.stringify(other.entry)
  );
}
