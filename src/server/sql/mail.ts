import type { OutboxMail } from '../../protocol/outbox-mail';
import type { Queryable } from '../database';

export interface NewMail {
  readonly sender: string;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
}

/** Adds a mail to the outbox of its sender. */
export async function insertMail(sql: Queryable, { sender, recipient, subject, body }: NewMail): Promise<void> {
  await sql`insert into outbox_mail (sender_id, recipient, subject, body) values (${sender}, ${recipient}, ${subject}, ${body})`;
}

/** Mails that are read at once. */
const MAX_MAILS = 200;

/** The outbox of a person, the newest first. */
export async function readMails(sql: Queryable, person: string): Promise<OutboxMail[]> {
  const rows = await sql<{ id: string; recipient: string; subject: string; body: string; written_at: Date }[]>`
    select id, recipient, subject, body, written_at from outbox_mail where sender_id = ${person} order by id desc limit ${MAX_MAILS}`;
  return rows.map(({ id, written_at, ...rest }) => ({ ...rest, id: Number(id), at: written_at.getTime() }));
}
