import type { RunningRule } from '../../rules/running-rule';
import type { CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';

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
  const columns = read.map(({ column, slots }) => ({ column, runs: runsOf(sheet, (slot) => slots.has(slot)) })).filter(({ runs }) => runs.length);
  if (columns.length === 0) return undefined;
  const rows = runsOf(sheet, (slot) => read.some(({ slots }) => slots.has(slot)));
  return {
    read: joined(columns),
    painted: joined([...painted].sort((a, b) => a - b).map((column) => ({ column, runs: rows }))),
    columns: columns.map(({ column }) => column),
    top: rows[0]!.top,
    bottom: rows.at(-1)!.bottom,
  };
}

interface Run {
  readonly top: number;
  readonly bottom: number;
}

/** Positions one after another for which something holds. */
function runsOf(sheet: Sheet, holds: (slot: number) => boolean): Run[] {
  const runs: { top: number; bottom: number }[] = [];
  sheet.order.forEach((slot, position) => {
    if (!holds(slot)) return;
    const last = runs.at(-1);
    if (last && last.bottom === position - 1) last.bottom = position;
    else runs.push({ top: position, bottom: position });
  });
  return runs;
}

/** Columns side by side with the same runs become one range a run. */
function joined(columns: readonly { readonly column: number; readonly runs: readonly Run[] }[]): CellRange[] {
  const ranges: CellRange[] = [];
  for (let at = 0; at < columns.length;) {
    const { column, runs } = columns[at]!;
    let end = at + 1;
    while (columns[end]?.column === column + end - at && JSON.stringify(columns[end]!.runs) === JSON.stringify(runs)) end++;
    for (const { top, bottom } of runs) ranges.push({ left: column, right: column + end - at - 1, top, bottom });
    at = end;
  }
  return ranges;
}
