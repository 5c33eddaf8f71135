import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { generateNKeysBetween } from 'fractional-indexing';
import type { LinkedColumn } from '../../core/rules/sql/linked-table';
import { windowRows } from '../../core/rules/sql/table-window';
import type { SheetId } from '../../core/sheet/ids';
import { itemAt } from '../../core/values/item-at';
import { readInput } from '../../core/values/read-input';
import { estimateRows } from '../../linked/read-linked-table';
import { runStatement, type LinkedRow } from '../../linked/run-statement';
import { WINDOW_ROWS, type LinkedHead, type WindowAsked } from '../../protocol/linked-table';
import { database } from '../database';
import { beginPacking } from '../sheets/read-packed';
import { readRowsInBatches } from '../sql/row';
import type { LinkedSheet } from './linked-sheet';

const compress = promisify(gzip);

/** The packed sheet with some rows of its table as records, compressed with gzip. */
export async function packWindow(
  id: SheetId,
  { host, table, settings, ask }: LinkedSheet,
  window: WindowAsked,
): Promise<Uint8Array<ArrayBuffer>> {
  // One row more says whether there are others beyond.
  const rows = windowRows(table, { ...window, limit: WINDOW_ROWS + 1 }, settings.zone ?? 'UTC');
  const [read, estimate] = await Promise.all([
    ask((connection) => runStatement(connection, rows)),
    ask((connection) => estimateRows(connection, table.name)),
  ]);
  const isMore = read.length > WINDOW_ROWS;
  const found = read.slice(0, WINDOW_ROWS);
  if (window.before) found.reverse();
  const linked: LinkedHead = {
    host,
    table: table.name.join('.'),
    window,
    first: found.length ? keyOf(itemAt(found, 0), table.key.length) : null,
    last: found.length ? keyOf(itemAt(found, found.length - 1), table.key.length) : null,
    hasBefore: window.before ? isMore : (window.after ?? window.from) !== undefined,
    hasAfter: window.before ? true : isMore,
    estimate,
  };
  return database().begin('isolation level repeatable read read only', async (tx) => {
    const packer = await beginPacking(tx, id, { linked });
    let lastKey: string | null = null;
    await readRowsInBatches(tx, id, (batch) => {
      for (const row of batch.filter(({ role }) => role === 'header')) {
        packer.add(row);
        lastKey = row.key;
      }
    });
    const keys = generateNKeysBetween(lastKey, null, found.length);
    for (const [at, row] of found.entries())
      packer.add({
        id: rowIdOf(row, table.key.length),
        key: itemAt(keys, at),
        role: 'record',
        cells: Object.fromEntries(
          table.columns.map((column, place) => [column.field, typed(column, row[`c${place + 1}`])]),
        ),
      });
    return compress(packer.pack(), { level: 3 });
  });
}

/** The key of a row, as texts. */
export const keyOf = (row: LinkedRow, length: number): string[] =>
  Array.from({ length }, (_, at) => String(row[`k${at + 1}`]));

/** The id of a record: its key, which stays the same whichever window it is in. */
export const rowIdOf = (row: LinkedRow, length: number): string => JSON.stringify(keyOf(row, length));

const ERRORS = new Set(['NaN', 'Infinity', '-Infinity', 'infinity', '-infinity']);

/** A value of the table as somebody would have typed it. */
function typed({ type }: LinkedColumn, value: unknown): string {
  if (value === null || value === undefined) return '';
  const written = String(value);
  if (type === 'logical') return written.toUpperCase();
  if (type !== 'text') return ERRORS.has(written) ? '#NUM!' : written;
  const isPlain = !/^['=]/.test(written) && readInput(written).value.kind === 'text';
  return isPlain || written === '' ? written : `'${written}`;
}
