import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import classes from './SheetScreen.module.css';
import { useSession, useSessionState } from './use-session';

/** A plain word about something that was not taken. */
export function Message() {
  const t = useTranslations('sheet');
  const session = useSession();
  const message = useSessionState((state) => state.message);
  if (message === null) return null;
  return (
    <div className={classes.message} role="alert">
      <span>{message}</span>
      <Button size="compact-sm" variant="default" onClick={() => session.dismissMessage()}>
        {t('iSee')}
      </Button>
    </div>
  );
}
