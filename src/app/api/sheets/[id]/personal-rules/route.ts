import Joi from 'joi';
import type { StoredRule } from '../../../../../core/rules/shape/stored-rule';
import { storedRule } from '../../../../../protocol/change-schema';
import { database } from '../../../../../server/database';
import { changePersonalRules, readPersonalRules } from '../../../../../server/sql/rule';
import { allow } from '../../../allow';
import { readBody } from '../../../read-body';
import { contentId } from '../../../read-query';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

/** Personal rules that are put or removed at once. */
const MAX_RULES = 200;

const schema = Joi.object<{ put: readonly StoredRule[]; remove: readonly string[] }>({
  put: Joi.array().items(storedRule).max(MAX_RULES).required(),
  remove: Joi.array().items(contentId).max(MAX_RULES).required(),
});

/** The caller's personal rules on the sheet. */
export function GET(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    return Response.json(await readPersonalRules(database(), { sheet, author: access.author }), {
      headers: { 'cache-control': 'no-store' },
    });
  });
}

/** Puts and removes some of them. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    const change = await readBody(request, schema);
    await database().begin((tx) => changePersonalRules(tx, { sheet, author: access.author }, change));
    return new Response(null, { status: 204 });
  });
}
