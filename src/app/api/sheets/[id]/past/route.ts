import Joi from 'joi';
import { database } from '../../../../../server/database';
import { readPast } from '../../../../../server/sheets/read-past';
import { allow } from '../../../allow';
import { readQuery, sequence } from '../../../read-query';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ until: number }>({ until: sequence.required() });

/** The past contents of cells, by the changes up to the sequence `until`. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'work');
    const past = await readPast(database(), id, readQuery(new URL(request.url).searchParams, schema));
    return Response.json(past, { headers: { 'cache-control': 'no-store' } });
  });
}
