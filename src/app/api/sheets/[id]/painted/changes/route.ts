import Joi from 'joi';
import { quick } from '../../../../../../server/front/quick-routes';
import { paintedStream } from '../../../../../../server/live/painted-stream';
import { ownKey } from '../../../../../../server/live/presence';
import { servedOf } from '../../../../allow';
import { pageKey, sequence } from '../../../../read-query';
import { readerOf, viewQuery, type ViewQuery } from '../../../../view-query';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = viewQuery.append<ViewQuery & { view: string; revision: number; page?: string }>({
  view: Joi.string().max(40).required(),
  revision: sequence.required(),
  page: pageKey,
});

/** The repaints of the reader view, as server-sent events, from where the reader stands. */
export const GET = quick(
  'GET /api/sheets/[id]/painted/changes',
  sheetRoute(
    { permit: 'read', query: schema },
    async ({ id: sheet, access, isStill, query: { theme, as, view, revision, page }, request }) => {
      const of = { theme, reader: readerOf(access, as) };
      return {
        events: paintedStream({
          sheet,
          of,
          from: { view, revision },
          page: page && ownKey(access.author, page),
          signal: request.signal,
          served: servedOf(sheet, access),
          mayRead: isStill,
        }),
      };
    },
  ),
);
