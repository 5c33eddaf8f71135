import { Menu } from '@mantine/core';
import { IconTableRow } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { ROW_ROLES, type RowRole } from '../../core/sheet/row-role';
import type { Key } from '../../texts/texts';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from '../grid/engine/selection';
import { ActMenu } from './ActMenu';
import { RowItems, useRowWords } from './RowItems';

/** Actions on the selected rows. */
export function RowMenu() {
  const t = useTranslations('actions');
  const session = useSession();
  const { top, bottom } = selectedArea(useSessionState((state) => state.selection));
  const fold = useSessionState((state) => state.frame?.folds.find(({ position }) => position === top));
  const isBanded = useSessionState((state) => state.frame?.isBanded ?? false);
  const rows = useRowWords({ top, bottom });
  return (
    <ActMenu label={t('rows')} icon={IconTableRow} width={240}>
      <Menu.Item onClick={() => void session.actions.addRecord()}>{t('addRecordEnd')}</Menu.Item>
      <RowItems top={top} bottom={bottom} />
      <Menu.Item onClick={() => void session.actions.edit({ do: 'duplicate-rows', top, bottom })}>
        {t('duplicateRows', { rows })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.moveSelected(0, -1)}>{t('moveRowsUp', { rows })}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.moveSelected(0, 1)}>{t('moveRowsDown', { rows })}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.removeDuplicates()}>{t('removeDuplicateRecords')}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'shift-level', top, bottom, by: 1 })}>
        {t('indentRows', { rows })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'shift-level', top, bottom, by: -1 })}>
        {t('outdentRows', { rows })}
      </Menu.Item>
      {fold && (
        <Menu.Item onClick={() => session.actions.toggleFold(top)}>
          {t('isFoldedFoldWhatBeneath', { isFolded: String(fold.folded), row: top + 1 })}
        </Menu.Item>
      )}
      <Menu.Item onClick={() => void session.actions.edit({ do: 'band-records', on: !isBanded })}>
        {isBanded ? t('removeStriping') : t('stripeRecords')}
      </Menu.Item>
      <Menu.Divider />
      <RoleItems top={top} bottom={bottom} />
    </ActMenu>
  );
}

const ROLE_WORDS = {
  title: 'roleTitle',
  header: 'roleHeader',
  record: 'roleRecord',
  group: 'roleGroup',
  total: 'total',
  note: 'roleNote',
} as const satisfies Record<RowRole, Key<'actions'>>;

/** What the selected rows are for. */
function RoleItems({ top, bottom }: { readonly top: number; readonly bottom: number }) {
  const t = useTranslations('actions');
  const session = useSession();
  const role = useSessionState((state) => state.cell?.role);
  const isOne = top === bottom;
  return (
    <>
      <Menu.Label>{isOne ? t('useThisRowAs') : t('useTheseRowsAs')}</Menu.Label>
      {ROW_ROLES.map((name) => (
        <Menu.Item
          key={name}
          disabled={isOne && role === name}
          onClick={() => void session.actions.edit({ do: 'set-role', top, bottom, role: name })}
        >
          {t(ROLE_WORDS[name])}
        </Menu.Item>
      ))}
    </>
  );
}
