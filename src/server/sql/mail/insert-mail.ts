import type { Queryable } from '../../database';

export interface NewMail {
  readonly sender: string;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
}

/** Puts a mail into the outbox of its sender. */
export async function insertMail(sql: Queryable, { sender, recipient, subject, body }: NewMail): Promise<void> {
  await sql`insert into outbox_mail (sender_id, recipient, subject, body) values (${sender}, ${recipient}, ${subject}, ${body})`;
}
