import Joi from 'joi';
import type { PresentPlace } from '../../../../../protocol/presence';
import { database } from '../../../../../server/database';
import { quick } from '../../../../../server/front/quick-routes';
import { announce, ownKey } from '../../../../../server/live/presence';
import { contentId, pageKey } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

const cell = Joi.object({ row: contentId.required(), field: contentId.required() });
const schema = Joi.object<{ key: string; place: PresentPlace | null }>({
  key: pageKey.required(),
  place: Joi.object({ from: cell.required(), to: cell.required() }).allow(null).required(),
});

/**
 * Announces that the sheet is open here, and the selection. The end of the stream of changes shows that the page has
 * left.
 */
export const POST = quick(
  'POST /api/sheets/[id]/presence',
  sheetRoute({ permit: 'read', body: schema }, async ({ id: sheet, access, body: { key, place } }) => {
    await announce(database(), {
      sheet,
      key: ownKey(access.author, key),
      present: { key, name: access.name, role: access.role, place },
    });
    return new Response(null, { status: 204 });
  }),
);
