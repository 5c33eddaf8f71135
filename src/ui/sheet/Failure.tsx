import { Anchor, Button, Text, Title } from '@mantine/core';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import classes from './Failure.module.css';
import { useSessionState } from './use-session';

/** Says why a sheet cannot be shown, in its place. */
export function Failure({ children }: { readonly children: ReactNode }) {
  const t = useTranslations('sheet');
  const failure = useSessionState((state) => state.failure);
  if (failure === null) return children;
  return (
    <div className={classes.failure} role="alert">
      <Title order={2}>{t('sheetCannotShown')}</Title>
      <Text my="sm">{failure}</Text>
      <Button onClick={() => location.reload()} mr="md">
        {t('tryAgain')}
      </Button>
      <Anchor href="/">{t('allSheets')}</Anchor>
    </div>
  );
}
