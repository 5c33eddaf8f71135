import { database } from '../../../../server/database';
import { signOutEverywhere } from '../../../../server/people/accounts';
import { hashToken } from '../../../../server/people/token';
import { readSessions } from '../../../../server/sql/session';
import { requirePerson } from '../../allow';
import { endSession, sessionToken } from '../../cookies';
import { respond } from '../../respond';

export const dynamic = 'force-dynamic';

/** The sessions of the caller. */
export function GET(): Promise<Response> {
  return respond(async () => {
    const { id } = await requirePerson();
    return Response.json(await readSessions(database(), id, hashToken((await sessionToken()) ?? '')));
  });
}

/** Signs the account out everywhere, here too. */
export function DELETE(request: Request): Promise<Response> {
  return respond(async () => {
    await signOutEverywhere(database(), await requirePerson());
    await endSession(request);
    return Response.json({});
  });
}
