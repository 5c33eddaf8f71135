'use client';

import { Anchor, Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { Page } from './Page';

/** A page that could not be made: says what is safe, and leads on. */
export function Broken({ onRetry }: { readonly onRetry: () => void }) {
  const t = useTranslations('page');
  return (
    <Page title={t('pageCouldNotOpened')} lead={t('somethingWentWrongServer')}>
      <p role="alert">{t('tryAgainMomentIf')}</p>
      <Button onClick={onRetry} mr="md">
        {t('tryAgain')}
      </Button>
      <Anchor href="/">{t('allSheets')}</Anchor>
    </Page>
  );
}
