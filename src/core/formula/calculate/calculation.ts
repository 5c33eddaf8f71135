import { inDigits } from '../../values/counted';
import { BitSet } from '../../values/bit-set';
import { TAG } from '../../values/cell-value';
import { ROW_ROLES } from '../../sheet/row-role';
import type { CellBefore, Effect } from '../../sheet/effect';
import type { Sheet } from '../../sheet/sheet';
import { DependencyIndex } from './dependency-index';
import type { FieldFormula } from './field-formula';
import { BATCH } from '../run/batches';
import { calculateCells } from './calculate-cells';
import { showReferences } from '../resolve/keep-references';
import { cellValueOf, FormulaShapes, makeFormula, valueAt, type Formula } from '../run/make-formula';
import { newCursor, type FormulaContext, type EvalCursor } from '../values/place';
import { stronglyConnected } from './strongly-connected';
import { TooMuchWork, type WorkLimits } from '../values/work-meter';

/** From this number on, edits cost more one by one than calculating everything. */
const MAX_SINGLE_EDITS = 5000;

/** The message of a cell whose formula is too much work. */
export const TOO_MUCH_WORK = {
  formula: ({ formula }: WorkLimits) => `too much work: use smaller ranges (over ${inDigits(formula)} values)`,
  sheet: ({ sheet, light }: WorkLimits) =>
    'too much work together with the other formulas: use smaller ranges or fewer formulas ' +
    `(over ${inDigits(sheet)} values; only formulas of up to ${inDigits(light)} are calculated)`,
} as const;

/** The contents of cells before they were calculated, by slot × fields + column; null where nobody asks. */
type Before = Map<number, CellBefore> | null;

/**
 * The formulas of a sheet: calculates them all, and after an edit those that depend on it. Fields are taken in the
 * order of what they read from one another; only where fields form a cycle is the order found cell by cell.
 */
export class Calculation {
  /** By column and code of the input. */
  private formulas: (Map<number, FieldFormula> | undefined)[] = [];
  private index = new DependencyIndex();
  private readonly shapes = new FormulaShapes();
  private readonly place: EvalCursor;
  /** Cells to calculate, by column. */
  private dirty: BitSet[] = [];
  private anyDirty = false;
  private readonly results = new Float64Array(BATCH);
  /** The cost of formulas that are not light, from their last calculation, by slot × fields + column. */
  private costs = new Map<number, number>();
  private cost = 0;
  /** The reading of the meter when the last cell was set. */
  private metered = 0;
  /** True where all formulas together are too much work: then only light ones are calculated. */
  private isOverBudget = false;

  constructor(
    private readonly sheet: Sheet,
    readonly context: FormulaContext,
  ) {
    this.place = newCursor(context);
    this.calculateAll();
  }

  /**
   * Reads and calculates all formulas: after rows, labels or names have changed. Where that is too much work, only the
   * light ones.
   */
  calculateAll(): void {
    this.isOverBudget = false;
    this.beginAll();
    try {
      this.calculate(null);
    } catch (error) {
      if (!(error instanceof TooMuchWork)) throw error;
      this.isOverBudget = true;
      this.beginAll();
      this.calculate(null);
    }
  }

  /** The cost of the formulas of the cells together, in values read and made; light ones are not counted. */
  get work(): number {
    return this.isOverBudget ? this.context.work.limits.sheet : this.cost;
  }

  /** Reads all formulas, and marks their cells. */
  private beginAll(): void {
    this.costs = new Map();
    this.cost = 0;
    this.formulas = [];
    this.index = new DependencyIndex();
    this.dirty = [];
    const rows = this.sheet.slotsWithRoles(ROW_ROLES);
    this.sheet.columns.forEach((store, column) => {
      if (store.formulas.count() === 0) return;
      const slots = new BitSet();
      slots.fit(this.sheet.slotCount);
      slots.words.set(store.formulas.words.subarray(0, slots.words.length));
      slots.keep(rows);
      store.forEachRun(slots, (slot) => this.note(column, slot));
      this.dirty[column] = slots;
      this.anyDirty = true;
    });
  }

  /**
   * Calculates cells that depend on edited ones. Gives the edits and those of formulas after them, each with its
   * content before.
   */
  follow(effects: readonly Effect[]): readonly Effect[] {
    if (
      effects.length > MAX_SINGLE_EDITS ||
      effects.some(
        (effect) => effect.kind === 'layout' || (effect.kind === 'cell' && this.sheet.roleAt(effect.slot) === 'header'),
      )
    ) {
      const had = this.index.size > 0;
      this.calculateAll();
      // Formulas may have changed anywhere: everything is evaluated again.
      return had ? [...effects, { kind: 'layout' }] : effects;
    }
    const edits = effects.filter((effect) => effect.kind === 'cell');
    const hasFormulas =
      this.index.size > 0 || edits.some(({ column, slot }) => this.sheet.column(column).formulas.has(slot));
    this.nextEpoch();
    if (!hasFormulas || edits.length === 0) return effects;
    let isOfFormulas = false;
    for (const { column, slot, before } of edits) {
      // A formula that gave this error may have been typed over.
      if (before.tag === TAG.error) isOfFormulas = true;
      this.forgetCost(slot * this.sheet.fields.length + column);
      if (this.sheet.column(column).formulas.has(slot)) {
        isOfFormulas = true;
        this.note(column, slot);
        this.mark(column, slot);
      }
    }
    // Where there was too much to do, less may be too much no longer.
    if (this.isOverBudget && isOfFormulas) return this.calculateAnew(effects);
    return this.calculateAfter(edits, effects);
  }

  /** Calculates time-dependent formulas, after the context's `now` has moved on. */
  tick(): readonly Effect[] {
    const cells = this.index.volatileOn('clock').flatMap((formula) => this.cellsOf(formula));
    for (const { column, slot } of cells) this.mark(column, slot);
    return this.calculateAfter([], []);
  }

  /**
   * The columns that the formulas of a column read; unknown where one finds what it reads only while it is calculated.
   */
  columnsReadBy(column: number): ReadonlySet<number> | 'unknown' {
    return this.index.columnsRead(column);
  }

  /** The mistake in the formula of a cell, by the characters that a person sees; undefined where there is none. */
  mistakeAt(column: number, slot: number): string | undefined {
    const store = this.sheet.column(column);
    if (!store.formulas.has(slot)) return undefined;
    const value = store.valueAt(slot);
    if (value.kind === 'error' && value.error === '#LIMIT!')
      return TOO_MUCH_WORK[this.isOverBudget ? 'sheet' : 'formula'](this.context.work.limits);
    const shown = showReferences(store.inputAt(slot), this.sheet, slot);
    return makeFormula(shown, { context: this.context, shapes: this.shapes }).diagnostics[0]?.message;
  }

  private calculateAfter(
    edits: readonly { readonly column: number; readonly slot: number }[],
    effects: readonly Effect[],
  ): readonly Effect[] {
    const before = new Map<number, CellBefore>();
    try {
      for (const formula of this.index.volatileOn('cells'))
        for (const { column, slot } of this.cellsOf(formula)) this.mark(column, slot);
      this.context.work.scheduling.within(this.context.work.limits.scheduling, () => this.spread(edits));
      this.calculate(before);
    } catch (error) {
      if (!(error instanceof TooMuchWork)) throw error;
      return this.calculateAnew(effects);
    }
    if (!this.isOverBudget && this.cost > this.context.work.limits.sheet) return this.calculateAnew(effects);
    const width = this.sheet.fields.length;
    const calculated = [...before].map(([cell, was]): Effect => ({
      kind: 'cell',
      column: cell % width,
      slot: Math.floor(cell / width),
      before: was,
    }));
    return [...effects, ...calculated];
  }

  private calculateAnew(effects: readonly Effect[]): readonly Effect[] {
    this.calculateAll();
    return [...effects, { kind: 'layout' }];
  }

  private fieldFormula(column: number, slot: number): FieldFormula | undefined {
    return this.formulas[column]?.get(this.sheet.column(column).inputCodeAt(slot));
  }

  /** Reads the formula of a cell, unless an equal one of the field was read before. */
  private note(column: number, slot: number): void {
    const store = this.sheet.column(column);
    const code = store.inputCodeAt(slot);
    const known = (this.formulas[column] ??= new Map());
    if (known.has(code)) return;
    const formula = makeFormula(store.inputAt(slot), { context: this.context, shapes: this.shapes });
    const fieldFormula = { column, code, formula };
    known.set(code, fieldFormula);
    this.index.add(fieldFormula, { ...this.place, column, slot, position: -1 });
  }

  private cellsOf({ column, code }: FieldFormula): { column: number; slot: number }[] {
    const store = this.sheet.column(column);
    const cells: { column: number; slot: number }[] = [];
    store.formulas.forEach((slot) => {
      if (store.inputCodeAt(slot) === code && this.sheet.positionOf(slot) >= 0) cells.push({ column, slot });
    });
    return cells;
  }

  private mark(column: number, slot: number): boolean {
    const dirty = (this.dirty[column] ??= new BitSet());
    dirty.fit(this.sheet.slotCount);
    if (dirty.has(slot)) return false;
    dirty.set(slot, true);
    this.anyDirty = true;
    return true;
  }

  /** Marks everything that depends on edited or marked cells, and what depends on that. */
  private spread(edits: readonly { readonly column: number; readonly slot: number }[]): void {
    const queue = [...edits];
    const spread = new Set<FieldFormula>();
    this.dirty.forEach((slots, column) => slots.forEach((slot) => queue.push({ column, slot })));
    for (let cell = queue.pop(); cell; cell = queue.pop()) {
      const { column, slot } = cell;
      this.context.work.scheduling.spend(1 + this.index.blockCount);
      for (const dependent of this.index.sameRow(column)) {
        const store = this.sheet.column(dependent.column);
        if (store.formulas.has(slot) && store.inputCodeAt(slot) === dependent.code && this.mark(dependent.column, slot))
          queue.push({ column: dependent.column, slot });
      }
      for (const dependent of this.index.reading(column, this.sheet.positionOf(slot))) {
        this.context.work.scheduling.spend(1);
        if (spread.has(dependent)) continue;
        spread.add(dependent);
        for (const member of this.cellsOf(dependent)) if (this.mark(member.column, member.slot)) queue.push(member);
      }
    }
  }

  private calculate(before: Before): void {
    this.nextEpoch();
    if (!this.anyDirty) return;
    this.anyDirty = false;
    const { work } = this.context;
    work.formulaLimit = this.isOverBudget ? work.limits.light : work.limits.formula;
    this.metered = work.spent;
    try {
      const { sheet, scheduling } = this.isOverBudget ? { sheet: Infinity, scheduling: Infinity } : work.limits;
      work.within(sheet, () => work.scheduling.within(scheduling, () => this.calculateDirty(before)));
    } finally {
      work.formulaLimit = work.limits.formula;
    }
  }

  private calculateDirty(before: Before): void {
    const columns = this.dirty.flatMap((slots, column) => (slots.count() ? column : []));
    const reads = new Map(columns.map((column) => [column, this.dirtyColumnsReadBy(column)]));
    const readBy = (column: number): readonly number[] => reads.get(column) ?? [];
    for (const circle of stronglyConnected(columns, readBy)) {
      const [only] = circle;
      if (only !== undefined && circle.length === 1 && !readBy(only).includes(only)) this.calculateColumn(only, before);
      else this.calculateCircle(circle, before);
    }
    for (const slots of this.dirty) slots?.clear();
  }

  /** Fields that hold cells to calculate and are read by formulas of a field. */
  private dirtyColumnsReadBy(column: number): number[] {
    const read = this.index.columnsRead(column);
    return this.dirty.flatMap((slots, candidate) =>
      slots.count() && (read === 'unknown' || read.has(candidate)) ? candidate : [],
    );
  }

  private nextEpoch(): void {
    this.context.epoch = (this.context.epoch ?? 0) + 1;
  }

  /** Cells of a field that read nothing of their own field, in any order: runs of one formula go in batches. */
  private calculateColumn(column: number, before: Before): void {
    const [dirty, formulas] = [this.dirty[column], this.formulas[column]];
    if (!dirty || !formulas) return;
    this.sheet.column(column).forEachRun(dirty, (first, end, code) => {
      const formula = formulas.get(code)?.formula;
      if (!formula) return;
      for (let from = first; from < end; from += BATCH)
        this.calculateRun(column, { first: from, count: Math.min(BATCH, end - from), formula }, before);
    });
  }

  private calculateRun(
    column: number,
    { first, count, formula }: { first: number; count: number; formula: Formula },
    before: Before,
  ): void {
    const { place } = this;
    Object.assign(place, { column, slot: first, position: -1, work: 0, refs: formula.bound });
    const numbers = formula.isUnread ? undefined : formula.compiled.numbers;
    const batch = numbers ? numbers({ place, first, count }, this.results) : this.results.fill(NaN);
    const results = batch.subarray(0, count);
    if (before === null) this.sheet.column(column).setNumbers(first, results);
    for (let at = 0; at < count; at++) {
      const number = results[at]!;
      const isPlain = number === number;
      if (isPlain && before === null) continue;
      place.slot = first + at;
      place.position = -1;
      this.put(column, first + at, {
        result: isPlain ? { kind: 'number', number } : cellValueOf(valueAt(formula, place)),
        before,
      });
    }
  }

  private put(
    column: number,
    slot: number,
    { result, before }: { result: ReturnType<typeof cellValueOf>; before: Before },
  ): void {
    const store = this.sheet.column(column);
    const cell = slot * this.sheet.fields.length + column;
    this.noteCost(cell);
    if (before === null) {
      store.setResult(slot, result);
      return;
    }
    const was = store.cellAt(slot);
    if (store.setResult(slot, result) && !before.has(cell)) before.set(cell, was);
  }

  /** Keeps what a cell that has just been calculated cost, unless it was light. */
  private noteCost(cell: number): void {
    const { spent, limits } = this.context.work;
    const cost = spent - this.metered;
    this.metered = spent;
    this.forgetCost(cell);
    if (cost <= limits.light) return;
    this.cost += cost;
    this.costs.set(cell, cost);
  }

  private forgetCost(cell: number): void {
    this.cost -= this.costs.get(cell) ?? 0;
    this.costs.delete(cell);
  }

  private calculateCircle(columns: readonly number[], before: Before): void {
    calculateCells(
      {
        sheet: this.sheet,
        columns,
        dirty: this.dirty,
        formulaAt: (column, slot) => this.fieldFormula(column, slot)!.formula,
        place: this.place,
        isOverBudget: this.isOverBudget,
      },
      (column, slot, result) => this.put(column, slot, { result, before }),
    );
  }
}
