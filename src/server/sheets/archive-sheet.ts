import { once } from 'node:events';
import { createGzip } from 'node:zlib';
import type { Readable } from 'node:stream';
import { changeLine, endLine, headLine, rowLine } from '../../core/exchange/archive/archive-lines';
import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql, Transaction } from '../database';
import { Refusal } from '../refusal';
import { readArchived } from '../sql/change';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { rowsInBatches } from '../sql/row';
import { readRules } from '../sql/rule';
import { findLogStart } from '../sql/log-start';
import { findSheet } from '../sql/sheet';
import { refusalText } from '../../texts/refusal-text';

/** Changes that are read at once. */
const CHANGES_AT_ONCE = 100;

/**
 * The whole sheet with its history as an archive (see archive-lines.ts), packed with gzip, as of one moment. Holds some
 * thousand rows at a time.
 */
export async function archiveSheet(
  sql: Sql,
  id: SheetId,
): Promise<{ readonly name: string; readonly packed: Readable }> {
  const sheet = await findSheet(sql, id);
  if (!sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const packer = createGzip();
  const write = async (text: string): Promise<void> => {
    if (packer.destroyed) throw new Error('nobody takes the archive any more');
    if (text !== '' && !packer.write(text)) await Promise.race([once(packer, 'drain'), once(packer, 'close')]);
  };
  void sql
    .begin('isolation level repeatable read read only', (tx) => writeLines(tx, id, write))
    .then(
      () => packer.end(),
      (error: Error) => packer.destroy(error),
    );
  return { name: sheet.name, packed: packer };
}

async function writeLines(tx: Transaction, id: SheetId, write: (text: string) => Promise<void>): Promise<void> {
  const { name, settings, createdAt, head } = (await findSheet(tx, id))!;
  const start = await findLogStart(tx, id);
  const logFrom = start ? start.sequence - 1 : head;
  await write(
    headLine({
      name,
      settings,
      createdAt,
      ...(logFrom > 0 ? { logFrom } : {}),
      fields: await readFields(tx, id),
      rules: await readRules(tx, id),
      parts: await readParts(tx, id),
    }),
  );
  let rows = 0;
  for await (const batch of rowsInBatches(tx, id)) {
    rows += batch.length;
    await write(batch.map(rowLine).join(''));
  }
  let changes = 0;
  for (let after = logFrom; after < head;) {
    const read = await readArchived(tx, id, { after, limit: CHANGES_AT_ONCE });
    if (read.length === 0) break;
    changes += read.length;
    after = lastItem(read).sequence;
    await write(read.map(({ change }) => changeLine(change)).join(''));
  }
  await write(endLine({ rows, changes }));
}
