import { LIMITS } from '../../core/exchange/limits';
import type { Operation } from '../../core/sheet/change';
import { describesItems } from '../../core/sheet/operations/registry';
import { Refusal } from '../refusal';
import { countContents } from '../sql/sheet';
import type { HeldSheet } from './held-sheet';
import { refusalText } from '../../texts/refusal-text';

/** Changes after which rows are counted: counting a million takes a while, and each change adds few. */
const COUNT_ROWS_EVERY = 50;
/** A change that adds this many rows is counted by itself. */
const MANY_ROWS = 1000;

/**
 * Holds a sheet to the limits of files (see limits.ts), after a change was applied and before it is kept: what cannot
 * be brought in must not come about bit by bit either. Throws a Refusal.
 */
export async function checkSize(
  sheet: HeldSheet,
  { operations, sequence }: { readonly operations: readonly Operation[]; readonly sequence: number },
): Promise<void> {
  const addsItems = operations.some(({ kind }) => describesItems(kind));
  const added = operations.reduce(
    (sum, operation) => sum + (operation.kind === 'insert-rows' ? operation.rows.length : 0),
    0,
  );
  const addsRows = added >= MANY_ROWS || (added > 0 && sequence % COUNT_ROWS_EVERY === 0);
  if (!addsItems && !addsRows) return;
  const { fields, rules, parts, rows } = await countContents(await sheet.settled(), sheet.id, { rows: addsRows });
  check('fields', fields, LIMITS.fields);
  check('rules', rules, LIMITS.rules);
  check('merged cells, names, looks and snapshots together', parts, LIMITS.sheetParts);
  check('rows', rows, LIMITS.rows);
}

function check(what: string, count: number, most: number): void {
  if (count > most) throw new Refusal('too-long', refusalText('sheetHasMostMost', { most, what, count }));
}
