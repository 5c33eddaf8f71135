import Joi from 'joi';
import { database } from '../../../../../../../server/database';
import { muteRule } from '../../../../../../../server/sql/follow';
import { setImportant } from '../../../../../../../server/sql/finding';
import { sheetPersonRoute } from '../../../../../route-declarations';

const schema = Joi.object<{ isMuted?: boolean; isImportant?: boolean }>({
  isMuted: Joi.boolean().strict(),
  isImportant: Joi.boolean().strict(),
}).xor('isMuted', 'isImportant');

/** Mutes a rule for the caller, or marks it as important for everybody who works on the sheet. */
export const PATCH = sheetPersonRoute(
  { permit: 'work', body: schema },
  async ({ id: sheet, person: { id: person }, body: { isMuted, isImportant }, param }) => {
    const rule = param('rule');
    if (isMuted !== undefined) await muteRule(database(), { sheet, person }, { rule, isMuted });
    if (isImportant !== undefined) await setImportant(database(), sheet, { rule, isImportant });
    return new Response(null, { status: 204 });
  },
);
