import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageTexts } from '../../../page-texts';
import { isMaker, isOwner } from '../../../../core/sharing/role';
import { database } from '../../../../server/database';
import { findDigest, readFollowedRules } from '../../../../server/sql/follow';
import { findHook } from '../../../../server/sql/webhook';
import { readFindings } from '../../../../server/sql/finding';
import { FindingsScreen } from '../../../../ui/findings/FindingsScreen';
import { sheetPageAccess } from '../../../sheet-page-access';
import { requireSignedIn } from '../../../signed-in';
import { sheetPageUrl } from '../../../../protocol/sheet-url';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { sheet } = await findingsAccess((await params).id);
  return { title: pageTexts()('nameItsFindings', { name: sheet.name }) };
}

export default async function FindingsPage({ params }: Props) {
  const { sheet, access } = await findingsAccess((await params).id);
  // Seen findings are kept by account.
  const { id: person, name } = await requireSignedIn(`/sheets/${sheet.id}/findings`);
  const [findings, rules, digest, hook] = await Promise.all([
    readFindings(database(), { person, sheet: sheet.id, only: 'unseen' }),
    readFollowedRules(database(), { person, sheet: sheet.id }),
    findDigest(database(), { sheet: sheet.id, person }),
    findHook(database(), sheet.id),
  ]);
  const told = {
    id: sheet.id,
    name: sheet.name,
    settings: { digest, hook: hook ?? null },
    isOwner: isOwner(access.role),
  };
  return <FindingsScreen sheet={told} first={{ findings, rules }} person={name} />;
}

async function findingsAccess(id: string) {
  const found = await sheetPageAccess(id, sheetPageUrl(id, 'findings'));
  return isMaker(found.access.role) ? found : notFound();
}
