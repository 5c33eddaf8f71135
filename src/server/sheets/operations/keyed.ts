import equal from 'fast-deep-equal';
import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Transaction } from '../../database';
import type { StoredOperation, UndoStep } from './stored-operation';

/** Items of a sheet that are put and removed whole, by id. */
export interface Keyed {
  readonly id: string;
}

export const idsOf = (items: readonly Keyed[]): string[] => items.map(({ id }) => id);
const idOf = (item: Keyed | string): string => (typeof item === 'string' ? item : item.id);

/** How one kind of such items is stored, and the operations on them, which hold items or ids. */
interface KeyedKind<T extends Keyed, P extends Operation, R extends Operation> {
  readonly read: (tx: Transaction, sheet: SheetId, ids: readonly string[]) => Promise<readonly T[]>;
  readonly write: (tx: Transaction, sheet: SheetId, item: T) => Promise<void>;
  readonly remove: (tx: Transaction, sheet: SheetId, ids: readonly string[]) => Promise<void>;
  /** The items of an operation that puts some, and the ids of one that removes some; none for other operations. */
  readonly itemsIn: (operation: Operation) => readonly T[];
  readonly idsIn: (operation: Operation) => readonly string[];
  readonly put: (items: readonly T[]) => P;
  readonly takeOut: (ids: readonly string[]) => R;
}

/** The two operations on one kind of keyed items: put and remove. */
export function keyedOperations<T extends Keyed, P extends Operation, R extends Operation>(
  kind: KeyedKind<T, P, R>,
): { readonly put: StoredOperation<P>; readonly remove: StoredOperation<R> } {
  const { read, write, remove, itemsIn, idsIn, put, takeOut } = kind;

  /** Of some items or ids: those that are as the undone change left them. */
  async function leftAlone<I extends T | string>(
    items: readonly I[],
    { tx, sheet, operations }: { tx: Transaction; sheet: SheetId; operations: readonly Operation[] },
  ): Promise<I[]> {
    const present = new Map((await read(tx, sheet, items.map(idOf))).map((item) => [item.id, item]));
    const left = new Map<string, T | undefined>();
    for (const operation of operations) {
      for (const item of itemsIn(operation)) left.set(item.id, item);
      for (const id of idsIn(operation)) left.set(id, undefined);
    }
    return items.filter((item) => left.has(idOf(item)) && equal(present.get(idOf(item)), left.get(idOf(item))));
  }

  return {
    put: {
      async apply(sheet, operation) {
        const tx = await sheet.settled();
        const items = itemsIn(operation);
        const before = await read(tx, sheet.id, idsOf(items));
        for (const item of items) await write(tx, sheet.id, item);
        const known = new Set(idsOf(before));
        const added = idsOf(items).filter((id) => !known.has(id));
        return [...(added.length ? [takeOut(added)] : []), ...(before.length ? [put(before)] : [])];
      },
      async unchangedSince(tx, sheet, { operation, operations }: UndoStep<P>) {
        const items = await leftAlone(itemsIn(operation), { tx, sheet, operations });
        return items.length ? [put(items)] : [];
      },
    },
    remove: {
      async apply(sheet, operation) {
        const tx = await sheet.settled();
        const before = await read(tx, sheet.id, idsIn(operation));
        await remove(tx, sheet.id, idsIn(operation));
        return before.length ? [put(before)] : [];
      },
      async unchangedSince(tx, sheet, { operation, operations }: UndoStep<R>) {
        const ids = await leftAlone(idsIn(operation), { tx, sheet, operations });
        return ids.length ? [takeOut(ids)] : [];
      },
    },
  };
}
