'use client';

import { useTranslations } from 'use-intl';
import type { OutboxMail } from '../../protocol/outbox-mail';
import { useMoments } from '../use-moments';
import { Page } from '../page/Page';
import classes from './Outbox.module.css';

/** Mails that would have been sent, for their sender to pass on. */
export function Outbox({ mails }: { readonly mails: readonly OutboxMail[] }) {
  const t = useTranslations('people');
  const moment = useMoments();
  return (
    <Page title={t('outbox')} lead={t('noMailLeavesComputer')} width="medium" isHome>
      {mails.length === 0 && <p>{t('noMessagesYetInvitations')}</p>}
      <ul className={classes.mails}>
        {mails.map(({ id, recipient, subject, body, at }) => (
          <li key={id} className={classes.mail}>
            <p className={classes.mailHead}>
              <b>{subject}</b>
              <span>{t('toRecipient', { recipient })}</span>
              <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
                {moment(at)}
              </time>
            </p>
            <pre className={classes.mailBody}>{body}</pre>
          </li>
        ))}
      </ul>
    </Page>
  );
}
