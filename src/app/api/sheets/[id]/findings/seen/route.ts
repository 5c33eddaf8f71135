import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { seeAll, seeOne } from '../../../../../../server/sql/follow';
import { sheetPersonRoute } from '../../../../route-declarations';

const schema = Joi.object<{ finding?: number; rule?: string; all?: true }>({
  finding: Joi.number().strict().integer().min(1),
  rule: Joi.string().max(100),
  all: Joi.valid(true),
}).xor('finding', 'rule', 'all');

/** Marks one finding as seen, all of a rule, or all of the sheet. */
export const POST = sheetPersonRoute(
  { permit: 'work', body: schema },
  async ({ id: sheet, person: { id: person }, body: { finding, rule } }) => {
    if (finding !== undefined) await seeOne(database(), { sheet, person }, finding);
    else await seeAll(database(), { sheet, person }, rule);
    return new Response(null, { status: 204 });
  },
);
