import { entriesOf } from '../../core/sheet/operations/registry';
import type { Operation } from '../../core/sheet/change';
import type { FieldId, RowId, SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { readChangesBefore } from '../sql/change';
import { hasLogAfter } from '../sql/log-start';
import { Refusal } from '../refusal';
import { storedOperation } from './operations/registry';
import type { Author } from './made-change';
import { commitComputed } from './take-change';
import { refusalText } from '../../texts/refusal-text';

interface TakenBack {
  readonly sheet: SheetId;
  readonly by: Author;
  /** The change to undo. */
  readonly sequence: number;
  /** The id of the new change, made by the client. */
  readonly id: string;
}

/** Undoes an earlier change by a new change. Whatever has been changed since then stays. */
export async function takeBack(sql: Sql, { sheet, by, sequence, id }: TakenBack): Promise<number> {
  return commitComputed(sql, {
    sheet,
    by,
    id,
    async compute(tx) {
      const [found] = await readChangesBefore(tx, sheet, { before: sequence + 1, limit: 1 });
      if (found?.sequence !== sequence) throw new Refusal('bad-request', refusalText('thereNoSuchChange'));
      const operations: Operation[] = [];
      for (const operation of guarded(found.inverse, found.operations))
        operations.push(
          ...(await storedOperation(operation).unchangedSince(tx, sheet, { operation, operations: found.operations })),
        );
      if (operations.length === 0) throw new Refusal('bad-request', refusalText('thereNothingUndoAll'));
      return operations;
    },
  });
}

/** Changes read at once, and at most undone by one. */
const BATCH = 20;
const MAX_CHANGES = 2000;

/**
 * Restores the whole sheet to a sequence, 0 for as it was made, by a new change that undoes all later ones; with
 * `cells` only those cells.
 */
export async function bringBack(
  sql: Sql,
  { sheet, by, sequence, id, cells }: TakenBack & { readonly cells?: readonly CellName[] | undefined },
): Promise<number> {
  return commitComputed(sql, {
    sheet,
    by,
    id,
    async compute(tx, head) {
      if (sequence >= head) throw new Refusal('bad-request', refusalText('thereNothingRestoreNothing'));
      if (head - sequence > MAX_CHANGES)
        throw new Refusal(
          'bad-request',
          refusalText('thereWereHeadChanges', { head: head - sequence, maxChanges: MAX_CHANGES }),
        );
      if (!(await hasLogAfter(tx, sheet, sequence)))
        throw new Refusal('bad-request', refusalText('historyBeginsLater'));
      const operations: Operation[] = [];
      for (let before = head + 1; before > sequence + 1;) {
        const changes = (await readChangesBefore(tx, sheet, { before, limit: BATCH })).filter(
          (change) => change.sequence > sequence,
        );
        for (const { inverse } of changes) operations.push(...(cells ? onlyCells(inverse, cells) : inverse));
        before = changes.at(-1)?.sequence ?? 0;
      }
      if (cells && operations.length === 0) throw new Refusal('bad-request', refusalText('thereNothingRestoreNone'));
      return operations;
    },
  });
}

interface CellName {
  readonly row: RowId;
  readonly field: FieldId;
}

/** Of some operations, what they enter in some cells. */
function onlyCells(operations: readonly Operation[], wanted: readonly CellName[]): Operation[] {
  const names = new Set(wanted.map(({ row, field }) => `${row} ${field}`));
  return operations.flatMap((operation): Operation[] => {
    if (operation.kind !== 'set-cells') return [];
    const cells = operation.cells.flatMap(({ row, field, input }) =>
      names.has(`${row} ${field}`) ? { row, field, input } : [],
    );
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  });
}

/** The inverse of a change, whose cells are entered only where they still hold what the change left in them. */
function guarded(inverse: readonly Operation[], operations: readonly Operation[]): Operation[] {
  const left = new Map<string, string>();
  for (const { row, field, input } of entriesOf(operations)) left.set(`${row} ${field}`, input);
  return inverse.map((operation) => {
    if (operation.kind !== 'set-cells') return operation;
    const cells = operation.cells.map(({ row, field, input }) => {
      const key = `${row} ${field}`;
      const was = left.get(key);
      // A cell that the change entered twice goes back in two steps.
      left.set(key, input);
      return { row, field, input, ...(was === undefined ? {} : { was }) };
    });
    return { kind: 'set-cells', cells };
  });
}
