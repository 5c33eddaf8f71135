import Joi from 'joi';
import type { Rule } from '../../../../../../core/rules/shape/rule';
import { ruleSchema } from '../../../../../../core/rules/shape/rule-schema';
import type { WindowAsked } from '../../../../../../protocol/linked-table';
import { judgeRule } from '../../../../../../server/linked/judge-rule';
import { windowSchema } from '../../../../linked-window';
import { askLinked } from '../../../../ask-linked';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ rule: Rule; window: WindowAsked }>({
  rule: ruleSchema(Joi).required(),
  window: windowSchema.required(),
}).label('question');

/** What a rule comes to over all records of the table that a sheet shows. */
export const POST = sheetRoute({ permit: 'work', body: schema }, askLinked(judgeRule));
