import { open, mkdir, rename } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { changeLine } from '../../core/exchange/archive/archive-lines';
import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { readArchived } from '../sql/change';
import { findLogStart, findRemovable, removeLog, takeLog } from '../sql/log-start';

const compress = promisify(gzip);

/** Changes that are removed by one transaction, and written into one file. */
const AT_ONCE = 2000;

interface Shortening {
  /** Changes made before this moment go. */
  readonly before: Date;
  /** The folder into which they are written first; null for none. */
  readonly archive: string | null;
}

/**
 * Removes old changes from the log of a sheet, which stays as it is: its history begins later. What goes is written to
 * ARCHIVE/SHEET/FIRST-LAST.jsonl.gz before, a line for each change as archives of sheets have them. Returns how many
 * went.
 */
export async function shortenLog(sql: Sql, sheet: SheetId, { before, archive }: Shortening): Promise<number> {
  let removed = 0;
  for (let more = true; more;) {
    const went = await sql.begin(async (tx) => {
      // Several processes may come to it.
      const start = (await takeLog(tx, sheet)) ? await findLogStart(tx, sheet) : undefined;
      const end = start ? await findRemovable(tx, sheet, before) : 0;
      if (!start || start.sequence > end) return 0;
      const changes = await readArchived(tx, sheet, {
        after: start.sequence - 1,
        limit: Math.min(AT_ONCE, end - start.sequence + 1),
      });
      const { sequence } = lastItem(changes);
      if (archive !== null) {
        const text = changes.map(({ change }) => changeLine(change)).join('');
        await writeDurably(join(archive, sheet, `${start.sequence}-${sequence}.jsonl.gz`), await compress(text));
      }
      return removeLog(tx, sheet, sequence);
    });
    removed += went;
    more = went === AT_ONCE;
  }
  return removed;
}

/** Writes a file so that it is there, whole, also after a power cut. */
async function writeDurably(path: string, bytes: Uint8Array): Promise<void> {
  await mkdir(dirname(path), { recursive: true, mode: 0o700 });
  const part = `${path}.part`;
  const file = await open(part, 'w', 0o600);
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(part, path);
  const folder = await open(dirname(path));
  try {
    await folder.sync();
  } finally {
    await folder.close();
  }
}
