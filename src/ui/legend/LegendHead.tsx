import { counted } from '../../core/values/counted';
import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconDotsVertical } from '@tabler/icons-react';
import type { SheetId } from '../../core/sheet/ids';
import type { Filter } from '../../protocol/sheet-view';
import { memo } from 'react';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

/** Where the sheet is shown as a page, with the records that are in view here. */
const paperOf = (sheet: SheetId, filter: Filter | null | undefined): string =>
  withQuery(sheetPageUrl(sheet, 'paper'), { filter: filter ? JSON.stringify(filter) : undefined });

/** The head of the legend: its title, or how many rules are chosen, and the actions on many at once. */
export const LegendHead = memo(function LegendHead() {
  const session = useSession();
  const chosen = useSessionState((state) => state.chosen);
  const onlyTouching = useSessionState((state) => state.onlyTouching);
  const isReading = useSessionState((state) => state.isReading);
  const { rules } = session;
  return (
    <div className={classes.head}>
      <h2 className={classes.title}>
        {chosen.length
          ? `${counted(chosen.length, 'rule')} selected`
          : onlyTouching
            ? 'Rules on the selection'
            : 'Legend'}
      </h2>
      {isReading ? (
        <Button size="compact-xs" variant="default" onClick={() => session.readLegend(false)}>
          Back to editing
        </Button>
      ) : chosen.length > 0 ? (
        <Button size="compact-xs" variant="default" onClick={() => rules.chooseRules([])}>
          Deselect all
        </Button>
      ) : (
        <LegendMenu />
      )}
    </div>
  );
});

/** What can be done with the whole legend. */
function LegendMenu() {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const onlyTouching = useSessionState((state) => state.onlyTouching);
  const filter = useSessionState((state) => state.frame?.filter);
  const { rules } = session;
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" color="ink" size="md" aria-label="Actions for the legend">
          <IconDotsVertical size={15} stroke={1.5} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => session.openDialog({ what: 'use-set', rules: [] })}>Use a rule set…</Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => session.openDialog({ what: 'set', rules: legend.map(({ id }) => id) })}
        >
          Save all rules as rule set…
        </Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => rules.carryToSelection(legend.filter(({ isDraft }) => !isDraft).map(({ id }) => id))}
        >
          Copy all rules to the selected cells
        </Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => rules.chooseRules(legend.filter(({ isDraft }) => !isDraft).map(({ id }) => id))}
        >
          Select all rules
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item onClick={() => rules.showOnlyTouching(!onlyTouching)}>
          {onlyTouching ? 'Show all rules' : 'Show only rules on the selection'}
        </Menu.Item>
        <Menu.Item onClick={() => session.readLegend(true)}>Preview as a reader</Menu.Item>
        <Menu.Item component="a" href={paperOf(session.sheet, filter)} target="_blank">
          Print or save as PDF…
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item onClick={() => void rules.removeTouching()}>Delete the rules on the selection</Menu.Item>
        <Menu.Item onClick={() => rules.removeRules(legend.map(({ id }) => id))}>Delete all rules</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
