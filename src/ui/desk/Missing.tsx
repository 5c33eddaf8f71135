'use client';

import { Anchor, Text, Title } from '@mantine/core';
import { useTranslations } from 'use-intl';
import classes from './Desk.module.css';

/** The page for an address that does not exist, or is not accessible. */
export function Missing({ because }: { readonly because?: string }) {
  const t = useTranslations('desk');
  return (
    <main className={classes.missing}>
      <Title order={1} size="h2">
        {t('thereIsNothingHere')}
      </Title>
      <Text my="sm">{because ?? t('sheetMayHaveBeen')}</Text>
      <Anchor href="/">{t('allSheets')}</Anchor>
    </main>
  );
}
