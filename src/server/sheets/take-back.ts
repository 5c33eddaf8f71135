import type { Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { readHistory } from '../sql/change/read-history';
import { Refusal } from './refusal';
import { takeChange } from './take-change';

interface TakenBack {
  readonly sheet: SheetId;
  readonly author: string;
  /** The change that is taken back. */
  readonly sequence: number;
  /** The id of the new change, made by the client. */
  readonly id: string;
}

/** Takes an earlier change back as a new change. Cells that have been entered anew since then are left as they are. */
export async function takeBack(sql: Sql, { sheet, author, sequence, id }: TakenBack): Promise<number> {
  const [found] = await readHistory(sql, sheet, { before: sequence + 1, limit: 1 });
  if (found?.sequence !== sequence) throw new Refusal('bad-request', 'There is no such change');
  return takeChange(sql, { sheet, author, change: { id, operations: guarded(found.inverse, found.operations) } });
}

/** The inverse of a change, whose cells are entered only where they still hold what the change left in them. */
function guarded(inverse: readonly Operation[], operations: readonly Operation[]): Operation[] {
  const left = new Map<string, string>();
  for (const operation of operations)
    if (operation.kind === 'set-cells') for (const { row, field, input } of operation.cells) left.set(`${row} ${field}`, input);
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
