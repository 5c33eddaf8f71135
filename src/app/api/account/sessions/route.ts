import { database } from '../../../../server/database';
import { signOutEverywhere } from '../../../../server/people/accounts';
import { requirePerson } from '../../allow';
import { keepSession } from '../../cookies';
import { respond } from '../../respond';

/** Signs the account out everywhere, here too. */
export function DELETE(request: Request): Promise<Response> {
  return respond(async () => {
    await signOutEverywhere(database(), await requirePerson());
    await keepSession(null, request);
    return Response.json({});
  });
}
