import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { pageTexts } from '../../page-texts';
import { LINK_ROLE_WORDS } from '../../../core/sharing/role-words';
import { findAccess } from '../../../server/access/find-access';
import { database } from '../../../server/database';
import { hashToken } from '../../../server/people/token';
import { NO_LINK } from '../../../server/sheets/join-sheet';
import { findLink } from '../../../server/sql/link';
import { Missing } from '../../../ui/desk/Missing';
import { Join } from '../../../ui/people/Join';
import { tokensFor } from '../../api/cookies';
import { requireSignedIn, signedIn } from '../../signed-in';
import { sheetPageUrl } from '../../../protocol/sheet-url';

export const dynamic = 'force-dynamic';
// The address of this page is a secret: no referrer is sent.
export const metadata: Metadata = {
  title: pageTexts()('auxesis'),
  referrer: 'no-referrer',
  robots: { index: false, follow: false },
};

export default async function LinkPage({ params }: { readonly params: Promise<{ token: string }> }) {
  const { token } = await params;
  const link = await findLink(database(), hashToken(token));
  if (!link) return <Missing because={NO_LINK} />;
  const isInvitation = link.invites !== null;
  const person = isInvitation ? await requireSignedIn(`/links/${token}`) : await signedIn();
  const access = await findAccess(database(), link.sheet, await tokensFor(link.sheet));
  // A visitor who has been here goes on under the same name.
  if (access && !isInvitation) redirect(sheetPageUrl(link.sheet));
  return (
    <Join
      token={token}
      sheetName={link.sheetName}
      may={LINK_ROLE_WORDS[link.role].may}
      isInvitation={isInvitation}
      name={person?.name ?? ''}
    />
  );
}
