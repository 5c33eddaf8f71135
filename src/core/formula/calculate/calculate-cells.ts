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

type Put = (column: number, slot: number, value: CellValue) => void;

/**
 * Calculates cells whose order is not known, each after those it reads: Tarjan's strongly connected components, without
 * recursion, so that a chain may have the length of the sheet. Cells in a cycle are `#CYCLE!`.
 */
export const calculateCells = (task: Task, put: Put): void => new CellOrder(task, put).calculate();

class CellOrder {
  private readonly visits = new Map<number, Visit>();
  private readonly done = new Set<number>();
  private readonly open: number[] = [];
  private readonly path: Visit[] = [];
  /** Cells whose formula names too many others. */
  private readonly tooWide = new Set<number>();
  private readonly width: number;
  private readonly lastRow: number;

  constructor(
    private readonly task: Task,
    private readonly put: Put,
  ) {
    this.width = task.sheet.fields.length;
    this.lastRow = task.sheet.rowCount - 1;
  }

  calculate(): void {
    for (const column of this.task.columns)
      this.task.dirty[column]?.forEach((slot) => {
        const cell = slot * this.width + column;
        if (!this.visits.has(cell)) this.visitAll(cell);
      });
  }

  private visitAll(root: number): void {
    const { path, visits, done } = this;
    this.begin(root);
    for (let visit = path.at(-1); visit; visit = path.at(-1)) {
      const read = visit.reads[visit.next];
      if (read !== undefined) {
        const other = visits.get(read);
        if (!other) this.begin(read);
        else {
          visit.next++;
          if (!done.has(read)) visit.low = Math.min(visit.low, other.low);
        }
        continue;
      }
      if (visit.low === visit.index && !this.finish(visit)) continue;
      path.pop();
    }
  }

  private begin(cell: number): void {
    const { column, slot } = this.placeOf(cell);
    Object.assign(this.task.place, { column, slot, position: -1, work: 0 });
    const reads = this.readsOf(cell, this.task.formulaAt(column, slot));
    const visit = { cell, reads, index: this.visits.size, low: this.visits.size, next: 0 };
    this.visits.set(cell, visit);
    this.open.push(cell);
    this.path.push(visit);
  }

  /** Calculates a cell whose reads are done; where more turn out to be read, they come first. */
  private finish(visit: Visit): boolean {
    const members = this.open.slice(this.open.lastIndexOf(visit.cell));
    const isCycle = members.length > 1 || visit.reads.includes(visit.cell);
    if (!isCycle) {
      const more = this.run(visit.cell);
      if (more.length) {
        for (const one of more) visit.reads.push(one);
        return false;
      }
    } else for (const cell of members) this.give(cell, CYCLE);
    this.open.length -= members.length;
    for (const cell of members) this.done.add(cell);
    return true;
  }

  /** Gives a cell its value; the cells that must be calculated before it can have one. */
  private run(cell: number): readonly number[] {
    const { place } = this.task;
    const { work } = place.context;
    if (this.tooWide.has(cell)) {
      this.give(cell, LIMIT);
      return [];
    }
    const { column, slot } = this.placeOf(cell);
    const formula = this.task.formulaAt(column, slot);
    const before = work.spent;
    const cursor: EvalCursor = formula.compiled.volatile.has('cells')
      ? { ...place, context: { ...place.context, demand: this.demand }, column, slot, position: -1 }
      : Object.assign(place, { column, slot, position: -1 });
    try {
      this.give(cell, cellValueOf(valueAt(formula, cursor)));
      return [];
    } catch (error) {
      if (!(error instanceof NotYet)) throw error;
      work.countAsScheduling(before);
      return error.cells;
    }
  }

  /** Called with cells that a formula reads without naming them. */
  private readonly demand = (area: Area): void => {
    const { isOverBudget, place } = this.task;
    if (isOverBudget && this.sizeOf(area) > place.context.work.formulaLimit) throw new TooMuchWork('formula');
    const cells = this.waitingIn(area);
    if (cells.length) throw new NotYet(cells);
  };

  /** The cells that a formula names and that are still to be calculated; none where there are too many. */
  private readsOf(cell: number, { bound }: Formula): number[] {
    const { place, isOverBudget } = this.task;
    const areas = bound.map((reference) => reference.areaAt(place)).filter((area) => area instanceof Area);
    const limit = place.context.work.formulaLimit;
    if (isOverBudget && areas.reduce((sum, area) => sum + this.sizeOf(area), 0) > limit) {
      this.tooWide.add(cell);
      return [];
    }
    return areas.flatMap((area) => this.waitingIn(area));
  }

  private waitingIn(area: Area): number[] {
    const { sheet, columns, dirty, place } = this.task;
    const { scheduling } = place.context.work;
    const found: number[] = [];
    if (area.sheet !== sheet) return found;
    for (const column of columns) {
      if (column < area.left || column > area.right) continue;
      scheduling.spend(Math.max(0, Math.min(area.bottom, this.lastRow) - area.top + 1));
      for (let position = area.top; position <= Math.min(area.bottom, this.lastRow); position++) {
        const slot = sheet.slotAt(position);
        const cell = slot * this.width + column;
        if (dirty[column]?.has(slot) !== true || this.done.has(cell)) continue;
        scheduling.spend(WAITING_STEPS);
        found.push(cell);
      }
    }
    return found;
  }

  /** How many cells of the sheet an area covers. */
  private sizeOf(area: Area): number {
    return (
      Math.max(0, Math.min(area.bottom, this.lastRow) - area.top + 1) *
      Math.max(0, Math.min(area.right, this.width - 1) - area.left + 1)
    );
  }

  private placeOf(cell: number): { readonly column: number; readonly slot: number } {
    return { column: cell % this.width, slot: Math.floor(cell / this.width) };
  }

  private give(cell: number, value: CellValue): void {
    const { column, slot } = this.placeOf(cell);
    this.put(column, slot, value);
  }
}
