import type { Metadata } from 'next';
import { pageTexts } from '../page-texts';
import { readForPerson } from '../../server/findings/read-for-person';
import { FindingsScreen } from '../../ui/findings/FindingsScreen';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
const t = pageTexts();
export const metadata: Metadata = { title: t('findingsAuxesis') };

/** The findings of all sheets. */
export default async function AllFindingsPage() {
  const { id: person, name } = await requireSignedIn('/findings');
  return <FindingsScreen sheet={null} first={await readForPerson({ person, only: 'unseen' })} person={name} />;
}
