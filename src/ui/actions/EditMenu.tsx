import { Button, Menu } from '@mantine/core';
import { IconClipboard } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { focusGrid } from '../grid/focus-grid';
import { EditItems } from './EditItems';

/** Cut, copy and paste without keys. */
export function EditMenu() {
  const t = useTranslations('actions');
  return (
    <Menu onClose={focusGrid} position="bottom-start" width={220}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<IconClipboard size={16} stroke={1.5} />}>
          {t('edit')}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <EditItems />
      </Menu.Dropdown>
    </Menu>
  );
}
