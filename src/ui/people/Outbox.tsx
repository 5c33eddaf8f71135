'use client';

import type { OutboxMail } from '../../protocol/outbox-mail';
import { momentWords } from '../moment-words';
import { Page } from '../page/Page';
import classes from './Outbox.module.css';

/** Mails that would have been sent, for their sender to pass on. */
export function Outbox({ mails }: { readonly mails: readonly OutboxMail[] }) {
  return (
    <Page
      title="Outbox"
      lead="No mail leaves this computer. What would have been sent for you is here, to read and to pass on."
      width="medium"
      isHome
    >
      {mails.length === 0 && <p>No messages yet. Invitations to sheets appear here.</p>}
      <ul className={classes.mails}>
        {mails.map(({ id, recipient, subject, body, at }) => (
          <li key={id} className={classes.mail}>
            <p className={classes.mailHead}>
              <b>{subject}</b>
              <span>to {recipient}</span>
              <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
                {momentWords(at)}
              </time>
            </p>
            <pre className={classes.mailBody}>{body}</pre>
          </li>
        ))}
      </ul>
    </Page>
  );
}
