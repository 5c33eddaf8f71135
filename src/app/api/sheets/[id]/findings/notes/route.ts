import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { Refusal } from '../../../../../../server/refusal';
import { addNote } from '../../../../../../server/sql/follow';
import { allow } from '../../../../allow';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';

const schema = Joi.object<{ finding: number; text: string }>({
  finding: Joi.number().strict().integer().min(1).required(),
  text: Joi.string().trim().min(1).max(500).required(),
});

/** Adds a note to a finding, for everybody who works on the sheet. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    const { finding, text } = await readBody(request, schema);
    if (!(await addNote(database(), sheet, { finding, text, author: access.name })))
      throw new Refusal('bad-request', 'There is no such finding any more.');
    return Response.json({}, { status: 201 });
  });
}
