import equal from 'fast-deep-equal';
import type { Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Transaction } from '../database';
import { readFields } from '../sql/field/read-fields';
import { readParts } from '../sql/part/read-parts';
import { findRows } from '../sql/row/find-rows';
import { readRules } from '../sql/rule/read-rules';

interface Item {
  readonly id: string;
}

/** What a change left of some things, by id: the thing, or undefined where it removed it. */
type Left = ReadonlyMap<string, Item | undefined>;

/** Of what takes a change back, what nobody has changed since: rules, fields, parts and new rows that are as the change left them. */
export async function stillThere(
  tx: Transaction,
  sheet: SheetId,
  { inverse, operations }: { readonly inverse: readonly Operation[]; readonly operations: readonly Operation[] },
): Promise<Operation[]> {
  const kept: Operation[] = [];
  for (const operation of inverse) kept.push(...(await untouched(tx, sheet, { operation, operations })));
  return kept;
}

type Asked = { readonly operation: Operation; readonly operations: readonly Operation[] };

async function untouched(tx: Transaction, sheet: SheetId, { operation, operations }: Asked): Promise<Operation[]> {
  switch (operation.kind) {
    case 'put-rules': {
      const rules = same(operation.rules, { now: await readRules(tx, sheet, ids(operation.rules)), left: leftOf(operations, 'rules') });
      return rules.length ? [{ ...operation, rules }] : [];
    }
    case 'remove-rules': {
      const rules = same(items(operation.rules), { now: await readRules(tx, sheet, operation.rules), left: leftOf(operations, 'rules') });
      return rules.length ? [{ ...operation, rules: ids(rules) }] : [];
    }
    case 'put-fields': {
      const fields = same(operation.fields, { now: await readFields(tx, sheet, ids(operation.fields)), left: leftOf(operations, 'fields') });
      return fields.length ? [{ ...operation, fields }] : [];
    }
    case 'remove-fields': {
      const fields = same(items(operation.fields), { now: await readFields(tx, sheet, operation.fields), left: leftOf(operations, 'fields') });
      return fields.length ? [{ ...operation, fields: ids(fields) }] : [];
    }
    case 'put-parts': {
      const parts = same(operation.parts, { now: await readParts(tx, sheet, ids(operation.parts)), left: leftOf(operations, 'parts') });
      return parts.length ? [{ ...operation, parts }] : [];
    }
    case 'remove-parts': {
      const parts = same(items(operation.parts), { now: await readParts(tx, sheet, operation.parts), left: leftOf(operations, 'parts') });
      return parts.length ? [{ ...operation, parts: ids(parts) }] : [];
    }
    case 'remove-rows': {
      // A row that came with the change may have been filled since.
      const now = new Map((await findRows(tx, sheet, operation.rows)).map((row) => [row.id, row.cells]));
      const came = new Map(operations.flatMap((each) => (each.kind === 'insert-rows' ? each.rows : [])).map((row) => [row.id, row.cells]));
      const rows = operation.rows.filter((id) => now.has(id) && equal(filled(now.get(id)!), filled(came.get(id) ?? {})));
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
const items = (list: readonly string[]): Item[] => list.map((id) => ({ id }));
const filled = (cells: Readonly<Record<string, string>>) => Object.fromEntries(Object.entries(cells).filter(([, input]) => input !== ''));

/** The items of a list that are now as the change left them. */
function same<T extends Item>(list: readonly T[], { now, left }: { readonly now: readonly Item[]; readonly left: Left }): T[] {
  const current = new Map(now.map((item) => [item.id, item]));
  return list.filter(({ id }) => left.has(id) && equal(current.get(id), left.get(id)));
}

function leftOf(operations: readonly Operation[], what: 'rules' | 'fields' | 'parts'): Left {
  const left = new Map<string, Item | undefined>();
  for (const operation of operations) {
    if (operation.kind === `put-${what}`) for (const item of (operation as unknown as Record<string, Item[]>)[what]!) left.set(item.id, item);
    if (operation.kind === `remove-${what}`) for (const id of (operation as unknown as Record<string, string[]>)[what]!) left.set(id, undefined);
  }
  return left;
}
