import { Menu } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { readSystemClipboard } from '../grid/clipboard/read-clipboard';
import { useSession } from '../sheet/use-session';
import classes from './EditItems.module.css';

/** Cut, copy, paste and clear for the selected cells, as items of a menu. */
export function EditItems() {
  const t = useTranslations('actions');
  const session = useSession();
  const { actions } = session;
  const paste = async (how: 'all' | 'values') => {
    const table = await readSystemClipboard();
    if (table) await actions.paste(table, how);
    else session.showMessage(t('pasteByKeys'));
  };
  const keys = (letter: string) => <kbd className={classes.keys}>{t('ctrlKey', { letter })}</kbd>;
  return (
    <>
      <Menu.Item rightSection={keys('X')} onClick={() => void actions.cut()}>
        {t('cut')}
      </Menu.Item>
      <Menu.Item rightSection={keys('C')} onClick={() => void actions.copy()}>
        {t('copy')}
      </Menu.Item>
      <Menu.Item rightSection={keys('V')} onClick={() => void paste('all')}>
        {t('paste')}
      </Menu.Item>
      <Menu.Item onClick={() => void paste('values')}>{t('pasteValuesOnly')}</Menu.Item>
      <Menu.Item
        rightSection={<kbd className={classes.keys}>{t('del')}</kbd>}
        onClick={() => void actions.editEach((area) => ({ do: 'clear-cells', area }))}
      >
        {t('clearCells')}
      </Menu.Item>
    </>
  );
}
