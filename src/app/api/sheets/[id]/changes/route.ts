import Joi from 'joi';
import { sentChanges } from '../../../../../protocol/change-schema';
import type { ChangeAnswer, SentChange } from '../../../../../protocol/recorded-change';
import { database } from '../../../../../server/database';
import { changeStream } from '../../../../../server/live/change-stream';
import { takeChange } from '../../../../../server/sheets/take-change';
import { isMaker } from '../../../../../core/sharing/role';
import { ownKey } from '../../../../../server/live/presence';
import { countRequestOf } from '../../../../../server/people/request-count';
import { servedOf } from '../../../allow';
import { quick } from '../../../../../server/front/quick-routes';
import { Refusal } from '../../../../../server/refusal';
import { FILLER_BODY, LARGE_BODY } from '../../../read-body';
import { pageKey, readQuery, sequence } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ after: number; page?: string }>({ after: sequence.default(0), page: pageKey });

export const POST = quick(
  'POST /api/sheets/[id]/changes',
  sheetRoute(
    { permit: 'enter', body: sentChanges, most: ({ role }) => (isMaker(role) ? LARGE_BODY : FILLER_BODY) },
    async ({ id: sheet, access, request, body }) => {
      if (!isMaker(access.role))
        await countRequestOf('entries', access.author, Number(request.headers.get('content-length') ?? FILLER_BODY));
      const take = async (change: SentChange): Promise<ChangeAnswer> => ({
        sequence: await takeChange(database(), { sheet, by: access, change }),
      });
      if (!isList(body)) return { json: await take(body) };
      const answers = body.map((change) => take(change).catch(refusedIn));
      return { json: await Promise.all(answers) };
    },
  ),
);

const isList = (body: SentChange | readonly SentChange[]): body is readonly SentChange[] => Array.isArray(body);

/** The answer to a change that is refused. What is said of others in the same request does not depend on it. */
function refusedIn(error: unknown): ChangeAnswer {
  if (error instanceof Refusal && error.code !== 'too-busy') return { refused: error.message };
  throw error;
}

/** Changes after a sequence as server-sent events; a reader that resumes names the last one it got. */
export const GET = quick(
  'GET /api/sheets/[id]/changes',
  sheetRoute({ permit: 'work' }, async ({ id: sheet, access, isStill, request }) => {
    const query = new URL(request.url).searchParams;
    const last = request.headers.get('last-event-id');
    if (last !== null) query.set('after', last);
    const { after, page } = readQuery(query, schema);
    const stream = await changeStream(database(), {
      sheet,
      after,
      page: page && ownKey(access.author, page),
      signal: request.signal,
      served: servedOf(sheet, access),
      mayRead: isStill,
    });
    return { events: stream };
  }),
);
