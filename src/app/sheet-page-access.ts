import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import type { SheetId } from '../core/sheet/ids';
import type { Access } from '../server/access/access';
import { findAccess } from '../server/access/find-access';
import { database } from '../server/database';
import { findSheet, type SheetHead } from '../server/sql/sheet';
import { tokensFor } from './api/cookies';
import { signedIn } from './signed-in';

/** A sheet and the caller's access to its page, found once a request. Without access: sign in, or not found. */
export const sheetPageAccess = cache(findPageAccess);

async function findPageAccess(
  id: SheetId,
  page: string,
): Promise<{ readonly sheet: SheetHead; readonly access: Access }> {
  if (!/^[\w-]{1,64}$/.test(id)) notFound();
  const access = await findAccess(database(), id, await tokensFor(id));
  if (!access) {
    if (await signedIn()) notFound();
    redirect(`/sign-in?to=${encodeURIComponent(page)}`);
  }
  return { sheet: (await findSheet(database(), id)) ?? notFound(), access };
}
