import Joi from 'joi';
import { nanoid } from 'nanoid';
import { ruleSetBody, type RuleSetBody } from '../../../protocol/rule-sets';
import { database } from '../../../server/database';
import { insertRuleSet } from '../../../server/sql/rule-set';
import { personRoute } from '../route-declarations';
import { refusalText } from '../../../texts/refusal-text';

const schema = Joi.object<{ name: string; body: RuleSetBody }>({
  name: Joi.string()
    .trim()
    .min(1)
    .max(80)
    .required()
    .messages({ 'string.empty': refusalText('giveRuleSetName') }),
  body: ruleSetBody.required(),
});

/** Keeps rules to be used in several sheets. */
export const POST = personRoute({ body: schema }, async ({ person: { id: owner }, body: { name, body } }) => {
  const id = nanoid(12);
  await insertRuleSet(database(), { id, owner, name, body });
  return Response.json({ id, version: 1 }, { status: 201 });
});
