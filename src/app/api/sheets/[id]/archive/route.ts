import { longWork } from '../../../../../server/database';
import { readMuch } from '../../../../../server/replicas';
import { spooled } from '../../../../../server/spool/spooled';
import { archiveSheet } from '../../../../../server/sheets/archive-sheet';
import { download } from '../../../download';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** Everything that the sheet holds, its history with it, as a file that makes the same sheet again. */
export const GET = sheetRoute({ permit: 'work' }, async ({ id }) => {
  const { name, packed } = await readMuch(longWork(), (sql) => archiveSheet(sql, id));
  return download(await spooled(packed), { name, ending: 'auxesis', type: 'application/gzip' });
});
