import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { Refusal } from '../../../../../../server/refusal';
import { bringBack, takeBack } from '../../../../../../server/sheets/take-back';
import { LARGE_BODY } from '../../../../read-body';
import { contentId, sequence as changeSequence } from '../../../../read-query';
import { sheetRoute } from '../../../../route-declarations';
import { refusalText } from '../../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ id: string; what: 'change' | 'sheet' | 'cells'; cells?: { row: string; field: string }[] }>(
  {
    id: Joi.string().min(1).max(100).required(),
    what: Joi.valid('change', 'sheet', 'cells').default('change'),
    cells: Joi.array()
      .items(Joi.object({ row: contentId.required(), field: contentId.required() }))
      .min(1)
      .max(1000)
      .when('what', { is: 'cells', then: Joi.required(), otherwise: Joi.forbidden() }),
  },
);

/**
 * Takes a change back, or brings the whole sheet or some cells back to what they were after it; as a new change, whose
 * id the client makes.
 */
export const POST = sheetRoute(
  { permit: 'work', body: schema, most: LARGE_BODY },
  async ({ id: sheet, access, body: { id, what, cells }, param }) => {
    const { error, value: sequence } = changeSequence.validate(param('sequence'));
    if (error) throw new Refusal('bad-request', refusalText('changeNamedByIts'));
    const asked = { sheet, by: access, sequence: sequence as number, id };
    const taken =
      what === 'change' ? await takeBack(database(), asked) : await bringBack(database(), { ...asked, cells });
    return Response.json({ sequence: taken });
  },
);
