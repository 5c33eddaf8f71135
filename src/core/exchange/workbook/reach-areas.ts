import { itemAt, lastItem } from '../../values/item-at';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { joinedAreas, runsOf } from './cells-to-areas';

/** The cells of a rule as ranges. */
export interface Reach {
  /** Cells that are read, the top-left ones first. */
  readonly read: readonly CellRange[];
  /** Cells of the rows read that are painted. */
  readonly painted: readonly CellRange[];
  /** Columns that are read, from the left. */
  readonly columns: readonly number[];
  readonly top: number;
  readonly bottom: number;
}

/** The cells that a rule reads and paints, as they stand now; undefined where there are none. */
export function reachOf({ read, painted }: RunningRule, sheet: Sheet): Reach | undefined {
  const columns = read
    .map(({ column, slots }) => ({ column, runs: runsOf(positionsWhere(sheet, (slot) => slots.has(slot))) }))
    .filter(({ runs }) => runs.length);
  if (columns.length === 0) return undefined;
  const rows = runsOf(positionsWhere(sheet, (slot) => read.some(({ slots }) => slots.has(slot))));
  return {
    read: joinedAreas(columns),
    painted: joinedAreas([...painted].sort((a, b) => a - b).map((column) => ({ column, runs: rows }))),
    columns: columns.map(({ column }) => column),
    top: itemAt(rows, 0).top,
    bottom: lastItem(rows).bottom,
  };
}

const positionsWhere = (sheet: Sheet, holds: (slot: number) => boolean): number[] =>
  sheet.order.flatMap((slot, position) => (holds(slot) ? position : []));
