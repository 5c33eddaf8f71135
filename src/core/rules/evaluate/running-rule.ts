import type { Scalar } from '../../formula/values/formula-value';
import { TooMuchWork } from '../../formula/values/work-meter';
import type { Look } from '../../looks/look';
import type { CellBefore, Effect } from '../../sheet/effect';
import { TAG } from '../../values/cell-value';
import type { BitSet } from '../../values/bit-set';
import type { Kernel } from '../kinds/kind';
import { kindOf, type When } from '../kinds/registry';
import { OutcomeColumn } from '../compile/outcome-column';
import { isInUse, paintedColumns, readCells, type ReadColumn } from '../compile/reach';
import type { Rule } from '../shape/rule';
import { isProblem, type Problem } from '../terms';
import { GivenKernel, type EvaluationWorld } from './given-outcomes';

const TOO_MUCH: Problem = {
  code: 'too-much-work',
  message:
    'too much work: judging all cells of this rule takes more than is done for one rule, or together with the rules before it more than is done ' +
    'for one sheet. Use smaller ranges in its formula, or read fewer cells',
};

type CellEffect = Extract<Effect, { kind: 'cell' }>;

/** A rule evaluated on a sheet: its outcomes for every cell it reads, kept up to date by edits. */
export class RunningRule {
  readonly outcomes = new Map<number, OutcomeColumn>();
  private trouble: Problem | null;
  /** The cost of evaluating all its cells, in values read and made by formulas. */
  work = 0;
  readonly read: readonly ReadColumn[];
  /** Columns painted, by number. */
  readonly painted: ReadonlySet<number>;
  private kernel: Kernel | null;
  private counts: readonly number[] | null = null;

  constructor(
    readonly rule: Rule,
    private readonly world: EvaluationWorld,
    /** Its budget each time its cells are evaluated. */
    readonly budget = world.formulas.work.limits.rule,
  ) {
    const { sheet } = world;
    const read = this.withinBudget(() => readCells(rule.reads, sheet, (cells) => world.formulas.work.spend(cells)));
    const painted = isProblem(read) ? read : paintedColumns(rule.paints, read, sheet);
    const kernel = isProblem(read) ? read : isProblem(painted) ? painted : this.compiled(rule, read);
    this.trouble = isProblem(kernel) ? kernel : null;
    this.read = isProblem(read) ? [] : read;
    this.painted = new Set(isProblem(painted) ? [] : painted);
    this.kernel = isProblem(kernel) ? null : kernel;
    if (rule.on && this.kernel && isProblem(this.withinBudget(() => this.runAll()))) {
      this.trouble = TOO_MUCH;
      this.kernel = null;
      this.outcomes.clear();
    }
  }

  /**
   * The condition, ready to be evaluated. Where not all records are here, one that looks at more than its own is given.
   */
  private compiled(rule: Rule, cells: readonly ReadColumn[]): Kernel | Problem {
    const { world } = this;
    const compile = (when: When) => this.withinBudget(() => kindOf(when).compile(when, { ...world, cells }));
    const { given } = world;
    const own = !given || kindOf(rule.when).isByRecord?.(rule.when) ? compile(rule.when) : null;
    if (!given || (own && (isProblem(own) || (own.inputs.wholeColumns.length === 0 && own.inputs.cells.length === 0))))
      return own ?? compile(rule.when);
    const known = given.of(rule);
    if ('problem' in known) return known.problem;
    return 'when' in known ? compile(known.when) : new GivenKernel(rule, world.sheet, known.at);
  }

  /** Why it cannot work; null where it can. */
  get problem(): Problem | null {
    return this.trouble;
  }

  /** True where it was too much work, and would be with any smaller budget. */
  get isTooMuchWork(): boolean {
    return this.trouble === TOO_MUCH;
  }

  /** Does a part of its work; a problem where that goes beyond its budget. */
  private withinBudget<T extends object>(task: () => T): T | Problem {
    const { work } = this.world.formulas;
    const before = work.spent;
    try {
      return work.within(this.budget - this.work, task);
    } catch (error) {
      if (error instanceof TooMuchWork) return TOO_MUCH;
      throw error;
    } finally {
      this.work += work.spent - before;
    }
  }

  private runAll(): ReadonlyMap<number, OutcomeColumn> {
    for (const { column } of this.read) this.run(column);
    return this.outcomes;
  }

  /** True where the rule takes part: it is on and has no problem. */
  get works(): boolean {
    return this.rule.on && this.kernel !== null;
  }

  /** How many cells are read. Rules mostly read the same slots of their fields: a caller may count these once. */
  readCount(countOf = (slots: BitSet) => slots.count()): number {
    return this.read.reduce((sum, { slots }) => sum + countOf(slots), 0);
  }

  /** The columns that its outcomes depend on: those that it reads, and those that its condition reads besides. */
  columnsRead(): number[] {
    const { sameRow = [], wholeColumns = [], cells = [] } = this.kernel?.inputs ?? {};
    return [
      ...new Set([
        ...this.read.map(({ column }) => column),
        ...sameRow,
        ...wholeColumns,
        ...cells.map(({ column }) => column),
      ]),
    ];
  }

  /** How many cells have each outcome, by its number. Counted when first asked after an outcome may have changed. */
  outcomeCounts(): readonly number[] {
    return (this.counts ??= this.countOutcomes());
  }

  private countOutcomes(): number[] {
    const counts: number[] = [];
    for (const { has, codes } of this.outcomes.values())
      if (codes) has.forEach((slot) => (counts[codes[slot]!] = (counts[codes[slot]!] ?? 0) + 1));
      else counts[0] = (counts[0] ?? 0) + has.count();
    return Array.from(counts, (count) => count ?? 0);
  }

  /** The outcome of a cell that is read, -1 for none or not read. */
  outcomeAt(column: number, slot: number): number {
    return this.outcomes.get(column)?.at(slot) ?? -1;
  }

  /** The outcome of a cell, evaluated from scratch: what `outcomeAt` knows, found without it. */
  judge(column: number, slot: number): number {
    return this.kernel?.outcomeAt(column, slot) ?? -1;
  }

  /** Another condition over the cells that are read, evaluated cell by cell; null where it cannot work. */
  judgeWith(when: When): ((column: number, slot: number) => number) | null {
    const kernel = this.withinBudget(() => kindOf(when).compile(when, { ...this.world, cells: this.read }));
    if (isProblem(kernel)) return null;
    return (column, slot) => (this.memberOf(column)?.slots.has(slot) ? kernel.outcomeAt(column, slot) : -1);
  }

  /** The look of an outcome: the condition's own, else the rule's; null where the outcome has no look. */
  look(outcome: number): Look | null {
    const own = this.kernel?.look(outcome);
    return own === undefined ? (this.rule.look ?? null) : own;
  }

  /** True where looks differ from cell to cell, and not just from outcome to outcome. */
  get variesByCell(): boolean {
    return this.kernel?.lookOf !== undefined;
  }

  /** The look that one cell which is read and has an outcome gives. */
  lookOf(column: number, slot: number): Look | null {
    return this.kernel?.lookOf ? this.kernel.lookOf(column, slot) : this.look(this.outcomeAt(column, slot));
  }

  /** The outcome of a cell as reports give it, for conditions with several. */
  outcomeTold(column: number, slot: number): unknown {
    const outcome = this.outcomeAt(column, slot);
    return this.kernel?.outcomeTold ? this.kernel.outcomeTold(outcome, column, slot) : outcome;
  }

  /** The result of the condition's formula for a cell; undefined for other conditions. */
  formulaValue(column: number, slot: number): Scalar | undefined {
    return this.kernel?.formulaValue?.(column, slot);
  }

  /** True where the outcome of a cell may depend on nothing outside of its record, by what its condition names. */
  get readsRecordAlone(): boolean {
    if (!this.kernel) return false;
    const { wholeColumns, cells, isTimeDependent, needsHistory } = this.kernel.inputs;
    return wholeColumns.length === 0 && cells.length === 0 && !isTimeDependent && !needsHistory;
  }

  /** True where outcomes may change as time goes by. */
  get isTimeDependent(): boolean {
    return this.kernel?.inputs.isTimeDependent ?? false;
  }

  /** True where what cells held before counts. */
  get needsHistory(): boolean {
    return this.kernel?.inputs.needsHistory ?? false;
  }

  explain(column: number, slot: number) {
    return this.kernel?.explain(column, slot);
  }

  /** True where a cell that is read has an outcome with a look. */
  shows(column: number, slot: number): boolean {
    const outcome = this.outcomeAt(column, slot);
    return outcome >= 0 && (this.variesByCell || this.look(outcome) !== null);
  }

  /** How many cells read have an outcome with a look. */
  shownCount(): number {
    return this.outcomeCounts().reduce(
      (sum, count, outcome) => sum + (this.variesByCell || this.look(outcome) ? count : 0),
      0,
    );
  }

  /**
   * True where an edit makes the condition itself different, so that it must be recompiled before any edit is followed.
   */
  mustRecompileFor({ column, slot, before }: CellEffect): boolean {
    if (!this.kernel) return this.problem !== null;
    if (this.rule.paints === 'record' && this.paintsOtherColumns(column, slot, before)) return true;
    const { wholeColumns, cells } = this.kernel.inputs;
    return wholeColumns.includes(column) || cells.some((cell) => cell.column === column && cell.slot === slot);
  }

  /** Whether a column has come into use by an edit, or is no longer in use. */
  private paintsOtherColumns(column: number, slot: number, before: CellBefore): boolean {
    const { sheet } = this.world;
    const isBlank = sheet.column(column).tags[slot] === TAG.blank;
    if ((before.tag === TAG.blank) === isBlank || this.read.some((each) => each.column === column)) return false;
    return this.painted.has(column) ? isBlank && !isInUse(sheet, column) : true;
  }

  /** Follows an edit. Returns false where the condition must be recompiled after all. */
  follow(effect: CellEffect): boolean {
    const { kernel } = this;
    if (!kernel) return true;
    const { work } = this.world.formulas;
    try {
      return work.within(this.budget, () => this.followWith(kernel, effect));
    } catch (error) {
      if (error instanceof TooMuchWork) return false;
      throw error;
    }
  }

  private followWith(kernel: Kernel, { column, slot, before }: CellEffect): boolean {
    const reads = this.memberOf(column)?.slots.has(slot) ?? false;
    // Statistics follow also while the rule is off, since the trace shows them.
    const touches = reads ? kernel.edited(column, slot, before) : 'this-cell';
    if (touches === 'recompile') return false;
    if (!this.rule.on) return true;
    if (touches === 'every-cell') this.runAll();
    else if (reads) this.runCell(column, slot);
    if (typeof touches === 'object') for (const other of touches) this.runCell(other.column, other.slot);
    if (kernel.inputs.sameRow.includes(column)) for (const member of this.read) this.runCell(member.column, slot);
    return true;
  }

  private memberOf(column: number): ReadColumn | undefined {
    return this.read.find((candidate) => candidate.column === column);
  }

  private run(column: number): void {
    const member = this.memberOf(column);
    if (!this.works || !this.kernel || !member) return;
    let outcomes = this.outcomes.get(column);
    if (!outcomes) this.outcomes.set(column, (outcomes = new OutcomeColumn(kindOf(this.rule.when).outcomes)));
    outcomes.fit(this.world.sheet.slotCount);
    this.counts = null;
    this.kernel.run(column, this.world.sheet.slotCount, outcomes);
    outcomes.has.keep(member.slots);
  }

  private runCell(column: number, slot: number): void {
    const member = this.memberOf(column);
    const outcomes = this.outcomes.get(column);
    if (!member || !outcomes) return;
    outcomes.fit(this.world.sheet.slotCount);
    const outcome = member.slots.has(slot) ? this.judge(column, slot) : -1;
    if (outcome === outcomes.at(slot)) return;
    outcomes.put(slot, outcome);
    this.counts = null;
  }
}
