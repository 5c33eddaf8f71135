import { generateNKeysBetween } from 'fractional-indexing';
import { nanoid } from 'nanoid';
import type { StoredRow, StoredRule } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Field } from '../../core/sheet/sheet';
import type { Sql } from '../database';
import { insertRows } from '../sql/row/insert-rows';
import { putRule } from '../sql/rule/put-rule';
import { insertSheet } from '../sql/sheet/insert-sheet';

export interface SheetContents {
  readonly id?: SheetId;
  readonly name: string;
  readonly fields: readonly Field[];
  readonly rows: readonly StoredRow[];
  readonly rules: readonly StoredRule[];
}

/** Rows inserted by one statement. */
const BATCH = 5000;

/** Makes a sheet with all that is in it, in one transaction. */
export async function createSheet(sql: Sql, { id = nanoid(12), name, fields, rows, rules }: SheetContents): Promise<SheetId> {
  const keys = generateNKeysBetween(null, null, fields.length);
  await sql.begin(async (tx) => {
    await insertSheet(tx, { id, name, fields: fields.map((field, at) => ({ ...field, key: keys[at]! })) });
    for (let at = 0; at < rows.length; at += BATCH) await insertRows(tx, id, rows.slice(at, at + BATCH));
    for (const rule of rules) await putRule(tx, id, rule);
  });
  return id;
}

/** An empty sheet to type in: a header row and blank records. */
export function emptySheet(name: string): SheetContents {
  const fields = Array.from({ length: 12 }, (_, at) => ({ id: `f${at + 1}`, widthPx: 120, format: null, unit: null }));
  const keys = generateNKeysBetween(null, null, 61);
  return { name, fields, rules: [], rows: keys.map((key, at) => ({ id: nanoid(10), key, role: at === 0 ? 'header' : 'record', cells: {} })) };
}
