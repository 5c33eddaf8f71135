import type { Metadata } from 'next';
import { database } from '../../server/database';
import { findPerson } from '../../server/sql/person';
import { Account } from '../../ui/people/Account';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Your account · Auxesis' };

export default async function AccountPage() {
  const { name, email } = await requireSignedIn('/account');
  const kept = await findPerson(database(), email);
  return <Account name={name} email={email} hasPassword={typeof kept?.password === 'string'} />;
}
