import Joi from 'joi';
import { longWork } from '../../../../../server/database';
import { readMuch } from '../../../../../server/replicas';
import { packedAsOf } from '../../../../../server/sheets/sheet-as-of';
import { packedForReaders } from '../../../../../server/sheets/read-packed';
import { sequence } from '../../../read-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ at?: number }>({ at: sequence });

/** The sheet as it is, or as it was after the change `at`. */
export const GET = sheetRoute({ permit: 'work', query: schema }, async ({ id, query: { at } }) => {
  const packed =
    at === undefined ? await packedForReaders(id) : await readMuch(longWork(), (sql) => packedAsOf(sql, id, at));
  // Compressed as its content type says: a content-encoding of our own would be taken off on the way out.
  return new Response(packed, {
    headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' },
  });
});
