import Joi from 'joi';
import { ruleSetBody, type RuleSetBody } from '../../../../protocol/rule-sets';
import { database } from '../../../../server/database';
import { Refusal } from '../../../../server/refusal';
import { deleteRuleSet, updateRuleSet } from '../../../../server/sql/rule-set';
import { personRoute } from '../../route-declarations';
import { refusalText } from '../../../../texts/refusal-text';

const schema = Joi.object<{ body: RuleSetBody }>({ body: ruleSetBody.required() });
const NOT_YOURS = refusalText('thereNoSuchRule');

/** Saves a new version of a rule set: sheets that use it learn of it. */
export const PUT = personRoute({ body: schema }, async ({ person: { id: owner }, body: { body }, param }) => {
  const version = await updateRuleSet(database(), { id: param('set'), owner, body });
  if (version === undefined) throw new Refusal('bad-request', NOT_YOURS);
  return Response.json({ version });
});

/** Removes a rule set. Sheets keep the rules that they have from it. */
export const DELETE = personRoute({}, async ({ person: { id: owner }, param }) => {
  if (!(await deleteRuleSet(database(), { id: param('set'), owner }))) throw new Refusal('bad-request', NOT_YOURS);
  return new Response(null, { status: 204 });
});
