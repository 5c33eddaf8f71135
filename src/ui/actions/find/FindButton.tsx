import { Button } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { useSession } from '../../sheet/use-session';

/** Opens the finding of text. */
export function FindButton() {
  const t = useTranslations('actions');
  const session = useSession();
  return (
    <Button
      variant="subtle"
      color="ink"
      size="compact-sm"
      leftSection={<IconSearch size={15} stroke={1.5} />}
      onClick={() => session.openPanel('find')}
    >
      {t('find')}
    </Button>
  );
}
