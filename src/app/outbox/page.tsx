import type { Metadata } from 'next';
import { database } from '../../server/database';
import { readMails } from '../../server/sql/mail';
import { Outbox } from '../../ui/people/Outbox';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Outbox · Auxesis' };

export default async function OutboxPage() {
  const { id } = await requireSignedIn('/outbox');
  return <Outbox mails={await readMails(database(), id)} />;
}
