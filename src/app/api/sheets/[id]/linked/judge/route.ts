import Joi from 'joi';
import { ruleSchema } from '../../../../../../core/rules/shape/rule-schema';
import type { Rule } from '../../../../../../core/rules/shape/rule';
import type { WindowAsked } from '../../../../../../protocol/linked-table';
import { database } from '../../../../../../server/database';
import { judgeRule } from '../../../../../../server/linked/judge-rule';
import { findLinkedSheet } from '../../../../../../server/linked/linked-sheet';
import { Refusal } from '../../../../../../server/refusal';
import { findSheet } from '../../../../../../server/sql/sheet';
import { refusalText } from '../../../../../../texts/refusal-text';
import { windowSchema } from '../../../../linked-window';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ rule: Rule; window: WindowAsked }>({
  rule: ruleSchema(Joi).required(),
  window: windowSchema.required(),
}).label('question');

/** What a rule comes to over all records of the table that a sheet shows. */
export const POST = sheetRoute({ permit: 'work', body: schema }, async ({ id, body }) => {
  const [linked, sheet] = await Promise.all([findLinkedSheet(id), findSheet(database(), id)]);
  if (!linked || !sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  return Response.json(await judgeRule(linked, { ...body, settings: sheet.settings }));
});
