import { IconClipboard } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { ActMenu } from './ActMenu';
import { EditItems } from './EditItems';

/** Cut, copy and paste without keys. */
export function EditMenu() {
  const t = useTranslations('actions');
  return (
    <ActMenu label={t('edit')} icon={IconClipboard} width={220}>
      <EditItems />
    </ActMenu>
  );
}
