'use client';

import { Anchor } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { Page } from '../page/Page';

/** The page for an address that does not exist, or is not accessible. */
export function Missing({ because }: { readonly because?: string }) {
  const t = useTranslations('desk');
  return (
    <Page title={t('thereIsNothingHere')} lead={because ?? t('sheetMayHaveBeen')}>
      <Anchor href="/">{t('allSheets')}</Anchor>
    </Page>
  );
}
