import Joi from 'joi';
import { database } from '../../../../../server/database';
import { readMuch } from '../../../../../server/replicas';
import { readPast } from '../../../../../server/sheets/read-past';
import { sequence } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ until: number }>({ until: sequence.required() });

/** The past contents of cells, by the changes up to the sequence `until`. */
export const GET = sheetRoute({ permit: 'work', query: schema }, async ({ id, query }) => {
  const past = await readMuch(database(), (sql) => readPast(sql, id, query));
  return Response.json(past, { headers: { 'cache-control': 'no-store' } });
});
