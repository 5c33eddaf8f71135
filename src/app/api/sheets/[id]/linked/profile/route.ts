import Joi from 'joi';
import type { Rule } from '../../../../../../core/rules/shape/rule';
import { ruleSchema } from '../../../../../../core/rules/shape/rule-schema';
import { profileRule } from '../../../../../../server/linked/profile-rule';
import { askLinked } from '../../../../ask-linked';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ rule: Rule }>({ rule: ruleSchema(Joi).required() }).label('question');

/** What the bench says of the values that a rule reads, over all records of a linked table. */
export const POST = sheetRoute({ permit: 'work', body: schema }, askLinked(profileRule));
