import type { Metadata } from 'next';
import { pageTexts } from '../page-texts';
import { database } from '../../server/database';
import { readMails } from '../../server/sql/mail';
import { Outbox } from '../../ui/people/Outbox';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
const t = pageTexts();
export const metadata: Metadata = { title: t('outboxAuxesis') };

export default async function OutboxPage() {
  const { id } = await requireSignedIn('/outbox');
  return <Outbox mails={await readMails(database(), id)} />;
}
