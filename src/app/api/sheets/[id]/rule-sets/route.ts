import Joi from 'joi';
import { database } from '../../../../../server/database';
import { Refusal } from '../../../../../server/refusal';
import { findRuleSet, readRuleSets } from '../../../../../server/sql/rule-set';
import { contentId } from '../../../read-query';
import { sheetPersonRoute } from '../../../route-declarations';
import { refusalText } from '../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ set?: string }>({ set: contentId });

/**
 * The rule sets that can be used in the sheet, with the versions that they are at; with `set`, one of them with its
 * rules.
 */
export const GET = sheetPersonRoute(
  { permit: 'work', query: schema },
  async ({ id: sheet, person: { id: person }, query: { set } }) => {
    if (set === undefined)
      return Response.json(await readRuleSets(database(), { person, sheet }), {
        headers: { 'cache-control': 'no-store' },
      });
    const found = await findRuleSet(database(), { id: set, person, sheet });
    if (!found) throw new Refusal('bad-request', refusalText('thereNoSuchRuleSet'));
    return Response.json(found, { headers: { 'cache-control': 'no-store' } });
  },
);
