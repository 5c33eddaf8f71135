import type { Change, Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { appendChange } from '../sql/change/append-change';
import { findChange } from '../sql/change/find-change';
import { lockHead } from '../sql/sheet/lock-head';
import { moveHead } from '../sql/sheet/move-head';
import { applyOperation } from './apply-operation';
import { Refusal } from './refusal';

/** The channel on which a taken change is told to every process: "sheet-id sequence". */
export const CHANGE_CHANNEL = 'sheet_change';

/**
 * Takes a change in one transaction: locks the sheet's head, checks and applies each operation, records it with its
 * inverse, and tells every process once it is committed. A change whose id was taken before is answered as it was then.
 * Throws a Refusal, and leaves nothing behind, where it cannot be taken.
 */
export async function takeChange(sql: Sql, { sheet, author, change }: { sheet: SheetId; author: string; change: Change }): Promise<number> {
  return sql.begin(async (tx) => {
    const head = await lockHead(tx, sheet);
    if (head === undefined) throw new Refusal('no-sheet', 'There is no such sheet');
    const before = await findChange(tx, sheet, change.id);
    if (before !== undefined) return before;
    const inverse: Operation[] = [];
    for (const operation of change.operations) inverse.unshift(...(await applyOperation(tx, sheet, operation)));
    const sequence = head + 1;
    await appendChange(tx, { sheet, sequence, author, change, inverse });
    await moveHead(tx, sheet, sequence);
    // Within the transaction, so that it is told on commit and not before; the driver's own `notify` would take another connection.
    await tx`select pg_notify(${CHANGE_CHANNEL}, ${`${sheet} ${sequence}`})`;
    return sequence;
  });
}
