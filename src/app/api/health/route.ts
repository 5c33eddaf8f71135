import { database } from '../../../server/database';
import { respond } from '../respond';

export const dynamic = 'force-dynamic';

/** Answers once the server and its database work together. */
export function GET(): Promise<Response> {
  return respond(async () => {
    await database()`select 1`;
    return Response.json({ ready: true });
  });
}
