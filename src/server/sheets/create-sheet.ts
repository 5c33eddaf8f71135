import { generateNKeysBetween } from 'fractional-indexing';
import { nanoid } from 'nanoid';
import type { ArchivedChange } from '../../core/exchange/archive/archive-lines';
import type { SheetContents } from '../../core/exchange/sheet-contents';
import type { SheetId } from '../../core/sheet/ids';
import { newField } from '../../core/sheet/field';
import type { Sql, Transaction } from '../database';
import { insertFindingHead } from '../sql/finding';
import { putMember } from '../sql/member';
import { insertRows } from '../sql/row';
import { putRule } from '../sql/rule';
import { putField } from '../sql/field';
import { putPart } from '../sql/part';
import { appendArchived } from '../sql/change';
import { dateSheet, insertSheet, moveHead } from '../sql/sheet';

export interface NewSheet extends SheetContents {
  readonly id?: SheetId;
  /** When it was made, in milliseconds of the Unix epoch; now where absent. */
  readonly createdAt?: number;
  /** The account that owns it. */
  readonly owner?: string;
  /** The changes that made it what it is, from its making on. */
  readonly changes?: readonly ArchivedChange[];
  /** How many changes came before the first that is known. */
  readonly logFrom?: number | undefined;
}

/** Rows inserted by one statement. */
export const ROWS_AT_ONCE = 5000;

/** Makes a sheet with all that is in it, in one transaction. */
export async function createSheet(sql: Sql, { id = nanoid(12), ...contents }: NewSheet): Promise<SheetId> {
  const { changes = [] } = contents;
  await sql.begin(async (tx) => {
    await fillSheet(tx, id, contents);
    const last = changes.at(-1);
    if (!last) return;
    await appendArchived(tx, id, { first: 1, changes });
    await moveHead(tx, id, changes.length);
    await dateSheet(tx, id, new Date(last.at));
  });
  return id;
}

/** Makes a sheet within a transaction. */
export async function fillSheet(
  tx: Transaction,
  id: SheetId,
  { name, settings = {}, createdAt, fields, rows, rules, parts = [], owner, logFrom = 0 }: NewSheet,
): Promise<void> {
  await insertSheet(tx, { id, name, settings, createdAt: createdAt ?? Date.now() });
  await insertFindingHead(tx, id, logFrom);
  for (const field of fields) await putField(tx, id, field);
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) await insertRows(tx, id, rows.slice(at, at + ROWS_AT_ONCE));
  for (const rule of rules) await putRule(tx, id, rule);
  for (const part of parts) await putPart(tx, id, part);
  if (owner !== undefined) await putMember(tx, id, { person: owner, role: 'owner' });
}

/** An empty sheet to type in: a header row and blank records. */
export function emptySheet(name: string): SheetContents {
  const fields = generateNKeysBetween(null, null, 12).map((key, at) => newField(`f${at + 1}`, key));
  const keys = generateNKeysBetween(null, null, 61);
  return {
    name,
    fields,
    rules: [],
    rows: keys.map((key, at) => ({ id: nanoid(10), key, role: at === 0 ? 'header' : 'record', cells: {} })),
  };
}
