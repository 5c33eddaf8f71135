import type { Metadata } from 'next';
import { pageTexts } from '../page-texts';
import { database } from '../../server/database';
import { readFindings } from '../../server/sql/finding';
import { readFollowedRules } from '../../server/sql/follow';
import { FindingsScreen } from '../../ui/findings/FindingsScreen';
import { requireSignedIn } from '../signed-in';

export const dynamic = 'force-dynamic';
const t = pageTexts();
export const metadata: Metadata = { title: t('findingsAuxesis') };

/** The findings of all sheets. */
export default async function AllFindingsPage() {
  const { id: person, name } = await requireSignedIn('/findings');
  const [findings, rules] = await Promise.all([
    readFindings(database(), { person, only: 'unseen' }),
    readFollowedRules(database(), { person }),
  ]);
  return <FindingsScreen sheet={null} first={{ findings, rules }} person={name} />;
}
