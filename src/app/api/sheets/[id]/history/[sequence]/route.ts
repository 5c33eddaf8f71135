import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { Refusal } from '../../../../../../server/refusal';
import { bringBack, takeBack } from '../../../../../../server/sheets/take-back';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';
import { allow } from '../../../../allow';
import { sequence as changeSequence } from '../../../../read-query';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ id: string; what: 'change' | 'sheet' }>({
  id: Joi.string().min(1).max(100).required(),
  what: Joi.valid('change', 'sheet').default('change'),
});

/** Takes a change back, or brings the whole sheet back to what it was after it; as a new change, whose id the client makes. */
export function POST(request: Request, { params }: { params: Promise<{ id: string; sequence: string }> }): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    const { error, value: sequence } = changeSequence.validate((await params).sequence);
    if (error) throw new Refusal('bad-request', 'A change is named by its sequence');
    const { id, what } = await readBody(request, schema);
    const take = what === 'sheet' ? bringBack : takeBack;
    const taken = await take(database(), { sheet, by: access, sequence: sequence as number, id });
    return Response.json({ sequence: taken });
  });
}
