import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { Refusal } from '../../../../../../server/refusal';
import { addNote } from '../../../../../../server/sql/follow';
import { sheetRoute } from '../../../../route-declarations';
import { refusalText } from '../../../../../../texts/refusal-text';

const schema = Joi.object<{ finding: number; text: string }>({
  finding: Joi.number().strict().integer().min(1).required(),
  text: Joi.string().trim().min(1).max(500).required(),
});

/** Adds a note to a finding, for everybody who works on the sheet. */
export const POST = sheetRoute(
  { permit: 'work', body: schema },
  async ({ id: sheet, access, body: { finding, text } }) => {
    if (!(await addNote(database(), sheet, { finding, text, author: access.name })))
      throw new Refusal('bad-request', refusalText('thereNoSuchFinding'));
    return Response.json({}, { status: 201 });
  },
);
