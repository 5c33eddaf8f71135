import type { BitSet } from '../../values/bit-set';
import type { Sheet } from '../../sheet/sheet';
import type { CellValue } from '../../values/cell-value';
import { Area } from '../values/formula-value';
import { cellValueOf, valueAt, type Formula } from '../run/make-formula';
import type { EvalCursor } from '../values/place';
import { TooMuchWork } from '../values/work-meter';

interface Task {
  readonly sheet: Sheet;
  readonly columns: readonly number[];
  /** Cells to calculate, by column. */
  readonly dirty: readonly (BitSet | undefined)[];
  readonly formulaAt: (column: number, slot: number) => Formula;
  readonly place: EvalCursor;
  /** True where formulas are refused by the size of the areas they name, before these are read. */
  readonly isOverBudget: boolean;
}

/** A cell on the stack: which of the cells it reads are left, and the least index that can be reached from it. */
interface Visit {
  readonly cell: number;
  readonly reads: number[];
  readonly index: number;
  low: number;
  next: number;
}

/** Cells that turned out to be read only while a formula ran. */
class NotYet extends Error {
  constructor(readonly cells: readonly number[]) {
    super('cells must be calculated first');
  }
}

const CYCLE: CellValue = { kind: 'error', error: '#CYCLE!' };
const LIMIT: CellValue = { kind: 'error', error: '#LIMIT!' };

/** Steps that a cell counts which has to be calculated first: a path through all of them is kept in memory. */
const WAITING_STEPS = 8;

/**
 * Calculates cells whose order is not known, each after those it reads: Tarjan's strongly connected components, without
 * recursion, so that a chain may have the length of the sheet. Cells in a cycle are `#CYCLE!`.
 */
export function calculateCells(task: Task, put: (column: number, slot: number, value: CellValue) => void): void {
  const { sheet, columns, dirty, place } = task;
  const width = sheet.fields.length;
  const cellOf = (column: number, slot: number): number => slot * width + column;
  const isDirty = (column: number, slot: number): boolean => dirty[column]?.has(slot) ?? false;
  const visits = new Map<number, Visit>();
  const done = new Set<number>();
  const open: number[] = [];
  const path: Visit[] = [];
  const { work } = place.context;
  /** Cells whose formula names too many others. */
  const tooWide = new Set<number>();

  const lastRow = sheet.rowCount - 1;
  const sizeOf = (area: Area): number =>
    Math.max(0, Math.min(area.bottom, lastRow) - area.top + 1) *
    Math.max(0, Math.min(area.right, width - 1) - area.left + 1);

  const waitingIn = (area: Area): number[] => {
    const found: number[] = [];
    if (area.sheet !== sheet) return found;
    for (const column of columns) {
      if (column < area.left || column > area.right) continue;
      work.scheduling.spend(Math.max(0, Math.min(area.bottom, lastRow) - area.top + 1));
      for (let position = area.top; position <= Math.min(area.bottom, lastRow); position++) {
        const slot = sheet.slotAt(position);
        if (!isDirty(column, slot) || done.has(cellOf(column, slot))) continue;
        work.scheduling.spend(WAITING_STEPS);
        found.push(cellOf(column, slot));
      }
    }
    return found;
  };

  /** The cells that a formula names and that are still to be calculated; none where there are too many. */
  const readsOf = (cell: number, { bound }: Formula): number[] => {
    const areas = bound.map((reference) => reference.areaAt(place)).filter((area) => area instanceof Area);
    if (task.isOverBudget && areas.reduce((sum, area) => sum + sizeOf(area), 0) > work.formulaLimit) {
      tooWide.add(cell);
      return [];
    }
    return areas.flatMap(waitingIn);
  };

  const begin = (cell: number): void => {
    const [column, slot] = [cell % width, Math.floor(cell / width)];
    Object.assign(place, { column, slot, position: -1, work: 0 });
    const reads = readsOf(cell, task.formulaAt(column, slot));
    const visit = { cell, reads, index: visits.size, low: visits.size, next: 0 };
    visits.set(cell, visit);
    open.push(cell);
    path.push(visit);
  };

  /** Calculates a cell whose reads are done; where more turn out to be read, they come first. */
  const finish = (visit: Visit): boolean => {
    const members = open.slice(open.lastIndexOf(visit.cell));
    const isCircle = members.length > 1 || visit.reads.includes(visit.cell);
    if (!isCircle) {
      const more = run(visit.cell);
      if (more.length) {
        for (const one of more) visit.reads.push(one);
        return false;
      }
    } else for (const cell of members) put(cell % width, Math.floor(cell / width), CYCLE);
    open.length -= members.length;
    for (const cell of members) done.add(cell);
    return true;
  };

  const run = (cell: number): readonly number[] => {
    const [column, slot] = [cell % width, Math.floor(cell / width)];
    if (tooWide.has(cell)) {
      put(column, slot, LIMIT);
      return [];
    }
    const formula = task.formulaAt(column, slot);
    const demand = (area: Area) => {
      if (task.isOverBudget && sizeOf(area) > work.formulaLimit) throw new TooMuchWork('formula');
      const cells = waitingIn(area);
      if (cells.length) throw new NotYet(cells);
    };
    const before = work.spent;
    const within: EvalCursor = { ...place, context: { ...place.context, demand }, column, slot, position: -1 };
    try {
      put(
        column,
        slot,
        cellValueOf(
          valueAt(
            formula,
            formula.compiled.volatile.has('cells') ? within : Object.assign(place, { column, slot, position: -1 }),
          ),
        ),
      );
      return [];
    } catch (error) {
      if (!(error instanceof NotYet)) throw error;
      work.countAsScheduling(before);
      return error.cells;
    }
  };

  const visitAll = (root: number): void => {
    begin(root);
    for (let visit = path.at(-1); visit; visit = path.at(-1)) {
      const read = visit.reads[visit.next];
      if (read !== undefined) {
        const other = visits.get(read);
        if (!other) begin(read);
        else {
          visit.next++;
          if (!done.has(read)) visit.low = Math.min(visit.low, other.low);
        }
        continue;
      }
      if (visit.low === visit.index && !finish(visit)) continue;
      path.pop();
    }
  };

  for (const column of columns)
    dirty[column]?.forEach((slot) => {
      if (!visits.has(cellOf(column, slot))) visitAll(cellOf(column, slot));
    });
}
