import Joi from 'joi';
import type { StoredRule } from '../../../../../core/rules/shape/stored-rule';
import { storedRule } from '../../../../../protocol/change-schema';
import { database } from '../../../../../server/database';
import { changePersonalRules, readPersonalRules } from '../../../../../server/sql/rule';
import { contentId } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** Personal rules that are put or removed at once. */
const MAX_RULES = 200;

const schema = Joi.object<{ put: readonly StoredRule[]; remove: readonly string[] }>({
  put: Joi.array().items(storedRule).max(MAX_RULES).required(),
  remove: Joi.array().items(contentId).max(MAX_RULES).required(),
});

/** The caller's personal rules on the sheet. */
export const GET = sheetRoute({ permit: 'work' }, async ({ id: sheet, access }) => {
  return Response.json(await readPersonalRules(database(), { sheet, author: access.author }), {
    headers: { 'cache-control': 'no-store' },
  });
});

/** Puts and removes some of them. */
export const PATCH = sheetRoute({ permit: 'work', body: schema }, async ({ id: sheet, access, body: change }) => {
  await database().begin((tx) => changePersonalRules(tx, { sheet, author: access.author }, change));
  return new Response(null, { status: 204 });
});
