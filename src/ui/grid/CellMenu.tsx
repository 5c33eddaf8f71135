import { Menu } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';
import { EditItems } from '../actions/EditItems';
import classes from '../actions/EditItems.module.css';
import { RowItems } from '../actions/RowItems';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from './engine/selection';
import { focusGrid } from './focus-grid';

interface Props {
  /** Where it opens, in pixels of the window; null while it is closed. */
  readonly at: { readonly x: number; readonly y: number } | null;
  readonly onClose: () => void;
}

/** The menu of the selected cells, where they were clicked with the other button. */
export function CellMenu({ at, onClose }: Props) {
  return (
    <Menu
      opened={at !== null}
      onClose={() => {
        onClose();
        focusGrid();
      }}
      position="bottom-start"
      offset={0}
      width={250}
    >
      <Menu.Target>
        <span aria-hidden style={{ position: 'fixed', left: at?.x, top: at?.y }} />
      </Menu.Target>
      {at && <CellItems />}
    </Menu>
  );
}

/** The selected cells as examples of a rule. */
function ExampleItems() {
  const t = useTranslations('byExample');
  const { examples } = useSession();
  const isOpen = useSessionState((state) => state.byExample !== null && state.byExample.filled === null);
  const keys = (said: string) => <kbd className={classes.keys}>{said}</kbd>;
  if (!isOpen)
    return (
      <Menu.Item rightSection={keys(t('altL'))} onClick={() => void examples.begin()}>
        {t('highlightCellsLikeThese')}
      </Menu.Item>
    );
  return (
    <>
      <Menu.Item rightSection={keys(t('altL'))} onClick={() => void examples.point(0)}>
        {t('exampleHighlight')}
      </Menu.Item>
      <Menu.Item rightSection={keys(t('altShiftL'))} onClick={() => void examples.point('none')}>
        {t('exampleLeave')}
      </Menu.Item>
    </>
  );
}

function CellItems() {
  const t = useTranslations('actions');
  const session = useSession();
  const router = useRouter();
  const { left, right, top, bottom } = selectedArea(useSessionState((state) => state.selection));
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const cell = useSessionState((state) => state.cell);
  const named = t('countFields', { count: right - left + 1, label: fields[left]?.label ?? '' });
  return (
    <Menu.Dropdown aria-label={t('selectedCells')}>
      <EditItems />
      <Menu.Divider />
      <Menu.Item onClick={() => session.openPanel('new-rule')}>{t('makeRuleOverFields', { fields: named })}</Menu.Item>
      <ExampleItems />
      {cell && (
        <Menu.Item
          onClick={() =>
            router.push(withQuery(sheetPageUrl(session.sheet, 'history'), { row: cell.row, field: cell.field }))
          }
        >
          {t('historyOfCell')}
        </Menu.Item>
      )}
      <Menu.Divider />
      <RowItems top={top} bottom={bottom} />
    </Menu.Dropdown>
  );
}
