import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageTexts } from '../../../page-texts';
import { isMaker, isOwner } from '../../../../core/sharing/role';
import { database } from '../../../../server/database';
import { readForPerson } from '../../../../server/findings/read-for-person';
import { findDigest } from '../../../../server/sql/follow';
import { findHook } from '../../../../server/sql/webhook';
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
  const [first, digest, hook] = await Promise.all([
    readForPerson({ person, sheet: sheet.id, only: 'unseen' }),
    findDigest(database(), { sheet: sheet.id, person }),
    findHook(database(), sheet.id),
  ]);
  const told = {
    id: sheet.id,
    name: sheet.name,
    settings: { digest, hook: hook ?? null },
    isOwner: isOwner(access.role),
  };
  return <FindingsScreen sheet={told} first={first} person={name} />;
}

async function findingsAccess(id: string) {
  const found = await sheetPageAccess(id, sheetPageUrl(id, 'findings'));
  return isMaker(found.access.role) ? found : notFound();
}
