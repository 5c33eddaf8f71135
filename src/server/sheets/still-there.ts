import equal from 'fast-deep-equal';
import type { Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Transaction } from '../database';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { findRows } from '../sql/row';
import { readRules } from '../sql/rule';

interface Item {
  readonly id: string;
}

/**
 * Of what takes a change back, what nobody has changed since: rules, fields, parts and new rows that are as the change
 * left them.
 */
export async function undoableOperations(
  tx: Transaction,
  sheet: SheetId,
  { inverse, operations }: { readonly inverse: readonly Operation[]; readonly operations: readonly Operation[] },
): Promise<Operation[]> {
  const kept: Operation[] = [];
  for (const operation of inverse) kept.push(...(await unchangedSince(tx, sheet, { operation, operations })));
  return kept;
}

/** The things of a sheet that are put and removed whole, by id, and how they are read as they are now. */
const READ = { rules: readRules, fields: readFields, parts: readParts };

type UndoQuery = { readonly operation: Operation; readonly operations: readonly Operation[] };

async function unchangedSince(
  tx: Transaction,
  sheet: SheetId,
  { operation, operations }: UndoQuery,
): Promise<Operation[]> {
  switch (operation.kind) {
    case 'put-rules':
    case 'put-fields':
    case 'put-parts':
    case 'remove-rules':
    case 'remove-fields':
    case 'remove-parts': {
      const what = operation.kind.slice(operation.kind.indexOf('-') + 1) as keyof typeof READ;
      const list = thingsOf(operation, what);
      const now = new Map((await READ[what](tx, sheet, list.map(idOf))).map((item) => [item.id, item as Item]));
      const left = stateAfter(operations, what);
      const kept = list.filter((thing) => left.has(idOf(thing)) && equal(now.get(idOf(thing)), left.get(idOf(thing))));
      return kept.length ? [{ ...operation, [what]: kept } as Operation] : [];
    }
    case 'remove-rows': {
      // A row that came with the change may have been filled since.
      const now = new Map((await findRows(tx, sheet, operation.rows)).map((row) => [row.id, row.cells]));
      const came = new Map(
        operations.flatMap((each) => (each.kind === 'insert-rows' ? each.rows : [])).map((row) => [row.id, row.cells]),
      );
      const rows = operation.rows.filter(
        (id) => now.has(id) && equal(filled(now.get(id)!), filled(came.get(id) ?? {})),
      );
      return rows.length ? [{ ...operation, rows }] : [];
    }
    case 'insert-rows': {
      const there = new Set(ids(await findRows(tx, sheet, ids(operation.rows))));
      const rows = operation.rows.filter(({ id }) => !there.has(id));
      return rows.length ? [{ ...operation, rows }] : [];
    }
    case 'set-cells':
    case 'set-styles':
    case 'change-rows':
      return [operation];
  }
}

const ids = (list: readonly Item[]): string[] => list.map(({ id }) => id);
const idOf = (thing: Item | string): string => (typeof thing === 'string' ? thing : thing.id);
const filled = (cells: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(cells).filter(([, input]) => input !== ''));

/** What an operation puts, or the ids that it removes, where it is about such things; nothing otherwise. */
function thingsOf(operation: Operation, what: keyof typeof READ): readonly (Item | string)[] {
  if (operation.kind !== `put-${what}` && operation.kind !== `remove-${what}`) return [];
  return (operation as unknown as Record<string, readonly (Item | string)[]>)[what]!;
}

/** What a change left of such things, by id: the thing, or undefined where it removed it. */
function stateAfter(operations: readonly Operation[], what: keyof typeof READ): ReadonlyMap<string, Item | undefined> {
  const left = new Map<string, Item | undefined>();
  for (const operation of operations) {
    for (const thing of thingsOf(operation, what)) left.set(idOf(thing), typeof thing === 'string' ? undefined : thing);
  }
  return left;
}
