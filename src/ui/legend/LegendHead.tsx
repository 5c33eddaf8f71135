import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconDotsVertical } from '@tabler/icons-react';
import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { SheetId } from '../../core/sheet/ids';
import type { Filter } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

/** Where the sheet is shown as a page, with the records that are in view here. */
const paperOf = (sheet: SheetId, filter: Filter | null | undefined): string =>
  withQuery(sheetPageUrl(sheet, 'paper'), { filter: filter ? JSON.stringify(filter) : undefined });

/** The head of the legend: its title, or how many rules are chosen, and the actions on many at once. */
export const LegendHead = memo(function LegendHead() {
  const t = useTranslations('legend');
  const session = useSession();
  const chosen = useSessionState((state) => state.chosen);
  const onlyTouching = useSessionState((state) => state.onlyTouching);
  const isReading = useSessionState((state) => state.isReading);
  const { rules } = session;
  return (
    <div className={classes.head}>
      <h2 className={classes.title}>
        {chosen.length
          ? t('chosenRulesSelected', { chosen: chosen.length })
          : onlyTouching
            ? t('rulesOnTheSelection')
            : t('legend')}
      </h2>
      {isReading ? (
        <Button size="compact-xs" variant="default" onClick={() => session.readLegend(false)}>
          {t('backToEditing')}
        </Button>
      ) : chosen.length > 0 ? (
        <Button size="compact-xs" variant="default" onClick={() => rules.chooseRules([])}>
          {t('deselectAll')}
        </Button>
      ) : (
        <LegendMenu />
      )}
    </div>
  );
});

/** What can be done with the whole legend. */
function LegendMenu() {
  const t = useTranslations('legend');
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const onlyTouching = useSessionState((state) => state.onlyTouching);
  const filter = useSessionState((state) => state.frame?.filter);
  const { rules } = session;
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" color="ink" size="md" aria-label={t('actionsForTheLegend')}>
          <IconDotsVertical size={15} stroke={1.5} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => session.openDialog({ what: 'use-set', rules: [] })}>{t('useARuleSet')}</Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => session.openDialog({ what: 'set', rules: legend.map(({ id }) => id) })}
        >
          {t('saveAllRulesAs')}
        </Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => rules.carryToSelection(legend.filter(({ isDraft }) => !isDraft).map(({ id }) => id))}
        >
          {t('copyAllRulesSelected')}
        </Menu.Item>
        <Menu.Item
          disabled={legend.length === 0}
          onClick={() => rules.chooseRules(legend.filter(({ isDraft }) => !isDraft).map(({ id }) => id))}
        >
          {t('selectAllRules')}
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item onClick={() => rules.showOnlyTouching(!onlyTouching)}>
          {onlyTouching ? t('showAllRules') : t('showOnlyRulesSelection')}
        </Menu.Item>
        <Menu.Item onClick={() => session.readLegend(true)}>{t('previewAsAReader')}</Menu.Item>
        <Menu.Item component="a" href={paperOf(session.sheet, filter)} target="_blank">
          {t('printSaveAsPDF')}
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item onClick={() => void rules.removeTouching()}>{t('deleteRulesSelection')}</Menu.Item>
        <Menu.Item onClick={() => rules.removeRules(legend.map(({ id }) => id))}>{t('deleteAllRules')}</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
