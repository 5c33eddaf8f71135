import { Readable } from 'node:stream';
import { database } from '../../../../../../server/database';
import { exportPainted } from '../../../../../../server/linked/export-painted';
import { findLinkedSheet } from '../../../../../../server/linked/linked-sheet';
import { Refusal } from '../../../../../../server/refusal';
import { readRules } from '../../../../../../server/sql/rule';
import { findSheet } from '../../../../../../server/sql/sheet';
import { refusalText } from '../../../../../../texts/refusal-text';
import { download } from '../../../../download';
import { sheetRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

/** All records of a linked table that its rules paint, as a table. */
export const GET = sheetRoute({ permit: 'work' }, async ({ id }) => {
  const [linked, sheet] = await Promise.all([findLinkedSheet(id), findSheet(database(), id)]);
  if (!linked || !sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const rules = (await readRules(database(), id)).map(({ rule }) => rule);
  const pieces = Readable.from(exportPainted(linked, rules), { objectMode: false });
  return download(pieces, { name: sheet.name, ending: 'csv', type: 'text/csv; charset=utf-8' });
});
