import Joi from 'joi';
import { changeSchema } from '../../../../../protocol/change-schema';
import { database } from '../../../../../server/database';
import { changeStream } from '../../../../../server/live/change-stream';
import { takeChange } from '../../../../../server/sheets/take-change';
import { isMaker } from '../../../../../core/sharing/role';
import { ownKey } from '../../../../../server/live/presence';
import { countRequestOf } from '../../../../../server/people/request-count';
import { servedOf } from '../../../allow';
import { streamed } from '../../../streamed';
import { FILLER_BODY, LARGE_BODY } from '../../../read-body';
import { pageKey, readQuery, sequence } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ after: number; page?: string }>({ after: sequence.default(0), page: pageKey });

export const POST = sheetRoute(
  { permit: 'enter', body: changeSchema, most: ({ role }) => (isMaker(role) ? LARGE_BODY : FILLER_BODY) },
  async ({ id: sheet, access, request, body: change }) => {
    if (!isMaker(access.role))
      await countRequestOf('entries', access.author, Number(request.headers.get('content-length') ?? FILLER_BODY));
    return Response.json({ sequence: await takeChange(database(), { sheet, by: access, change }) });
  },
);

/** Changes after a sequence as server-sent events; a reader that resumes names the last one it got. */
export const GET = sheetRoute({ permit: 'work' }, async ({ id: sheet, access, isStill, request }) => {
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
  return streamed(stream);
});
