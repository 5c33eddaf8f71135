import type { Metadata } from 'next';
import { pageTexts } from '../page-texts';
import { database } from '../../server/database';
import { findPerson } from '../../server/sql/person';
import { Account } from '../../ui/people/Account';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
const t = pageTexts();
export const metadata: Metadata = { title: t('yourAccountAuxesis') };

export default async function AccountPage() {
  const { name, email, region } = await requireSignedIn('/account');
  const kept = await findPerson(database(), email);
  return <Account name={name} email={email} region={region} hasPassword={typeof kept?.password === 'string'} />;
}
