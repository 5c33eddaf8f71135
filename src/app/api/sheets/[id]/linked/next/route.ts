import Joi from 'joi';
import type { Rule } from '../../../../../../core/rules/shape/rule';
import { ruleSchema } from '../../../../../../core/rules/shape/rule-schema';
import { nextRow } from '../../../../../../server/linked/judge-rule';
import { rowKeySchema } from '../../../../linked-window';
import { askLinked } from '../../../../ask-linked';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ rule: Rule; after?: readonly string[] }>({
  rule: ruleSchema(Joi).required(),
  after: rowKeySchema,
}).label('question');

/** The key of the next row of a linked table in which a rule gives a look. */
export const POST = sheetRoute({ permit: 'work', body: schema }, askLinked(nextRow));
