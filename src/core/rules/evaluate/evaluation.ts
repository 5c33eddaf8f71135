import equal from 'fast-deep-equal';
import type { Look } from '../../looks/look';
import type { Effect } from '../../sheet/effect';
import type { Sheet } from '../../sheet/sheet';
import { FormulaShapes } from '../../formula/run/make-formula';
import type { CellHistory } from '../compile/cell-history';
import { Calculation } from '../../formula/calculate/calculation';
import { WorkMeter, type WorkLimits } from '../../formula/values/work-meter';
import type { EvaluationWorld, GivenOutcomes } from './given-outcomes';
import { Resolver } from './resolver';
import type { Rule } from '../shape/rule';
import { RunningRule } from './running-rule';

/** From this number on, edits cost more one by one than evaluating everything. */
const MAX_SINGLE_EDITS = 5000;

export interface EvaluationOptions {
  /** This moment as a serial date and time of day in the sheet's time zone; without it no day is today. */
  readonly now?: number;
  readonly history?: CellHistory | null;
  /** The limits of evaluations, where they differ from the default. */
  readonly limits?: WorkLimits | undefined;
  /** Who knows what rules over all records come to, where only some are here. */
  readonly given?: GivenOutcomes | null;
  /**
   * Another sheet of the workspace by its name, for formulas. After it changed, `otherSheetChanged` is to be called.
   */
  readonly findSheet?: (name: string) => Sheet | undefined;
}

/**
 * All rules of a sheet, in order of precedence. Edits evaluate again only the rules that read the cell or depend on it;
 * a change of rows or rules runs what it touches as a whole (a few milliseconds at 100,000 records).
 */
export class Evaluation {
  activeRules: readonly RunningRule[] = [];
  resolver: Resolver;
  /** The formulas of the sheet's cells: rules see what they give. */
  readonly calculation: Calculation;

  /** The environment that the rules share. */
  readonly world: EvaluationWorld;

  constructor(
    readonly sheet: Sheet,
    private saved: Readonly<Record<string, Look>>,
    { now = NaN, history = null, limits, findSheet = () => undefined, given = null }: EvaluationOptions = {},
  ) {
    const formulas = {
      sheet,
      now,
      work: new WorkMeter(limits),
      findSheet,
      findName: (name: string) => sheet.findName(name)?.refersTo,
    };
    this.calculation = new Calculation(sheet, formulas);
    this.world = { sheet, formulas, shapes: new FormulaShapes(), history, given };
    this.resolver = new Resolver([], saved, sheet);
  }

  /** A new moment: evaluates what is time-dependent, formulas in cells and rules alike. */
  tick(now: number): void {
    this.world.formulas.now = now;
    const effects = this.calculation.tick();
    this.judge(effects);
    this.install(this.activeRules.map((running) => (running.isTimeDependent ? running.rule : running)));
  }

  /** Puts these rules to work; those that are the same objects as before keep what they know. */
  setRules(rules: readonly Rule[]): void {
    const known = new Map(this.activeRules.map((running) => [running.rule, running]));
    this.install(rules.map((rule) => known.get(rule) ?? rule));
  }

  /** More is known of what a condition comes to over all records: evaluates the rules that have it. */
  onGiven({ when, reads }: Rule): void {
    const isIt = ({ rule }: RunningRule): boolean => equal(rule.when, when) && equal(rule.reads, reads);
    this.install(this.activeRules.map((running) => (isIt(running) ? running.rule : running)));
  }

  /** Looks saved under these names from now on. */
  setSavedLooks(saved: Readonly<Record<string, Look>>): void {
    this.saved = saved;
    this.install(this.activeRules);
  }

  /**
   * Follows what a change touched: calculates formulas, then evaluates rules. Gives all that is different now, results
   * of formulas too. Changes of rules are followed by `setRules`.
   */
  follow(touched: readonly Effect[]): readonly Effect[] {
    const effects = this.calculation.follow(touched);
    this.judge(effects);
    return effects;
  }

  /** More of the history is known: evaluates what depends on it. */
  onHistoryExtended(): void {
    if (this.needsHistory)
      this.install(this.activeRules.map((running) => (running.needsHistory ? running.rule : running)));
  }

  /** True where a rule asks what cells held before. */
  get needsHistory(): boolean {
    return this.activeRules.some((running) => running.needsHistory);
  }

  /**
   * Another sheet that formulas here may read has changed, or can now be found: everything is calculated and evaluated
   * again.
   */
  otherSheetChanged(): void {
    this.calculation.calculateAll();
    this.judge([{ kind: 'layout' }]);
  }

  private judge(effects: readonly Effect[]): void {
    if (effects.length > MAX_SINGLE_EDITS || effects.some((effect) => effect.kind === 'layout')) {
      this.install(this.activeRules.map(({ rule }) => rule));
      return;
    }
    const edits = firstOfEachCell(effects, this.sheet.fields.length);
    const stale = new Set(
      this.activeRules.filter(
        (running) =>
          edits.some((edit) => running.mustRecompileFor(edit)) || !edits.every((edit) => running.follow(edit)),
      ),
    );
    if (stale.size) this.install(this.activeRules.map((running) => (stale.has(running) ? running.rule : running)));
  }

  /**
   * Activates rules, in order: those that run go on, the others are compiled. All evaluations of a sheet share one
   * budget, which earlier rules use first.
   */
  private install(rules: readonly (RunningRule | Rule)[]): void {
    const { limits } = this.world.formulas.work;
    let left = Math.max(0, limits.sheet - this.calculation.work);
    this.activeRules = rules.map((rule) => {
      const budget = Math.min(limits.rule, left);
      const running =
        rule instanceof RunningRule && goesOn(rule, budget)
          ? rule
          : new RunningRule('rule' in rule ? rule.rule : rule, this.world, budget);
      left -= Math.min(left, running.work);
      return running;
    });
    this.resolver = new Resolver(this.activeRules, this.saved, this.sheet);
  }
}

/** Whether a rule would be the same if it were compiled again with this budget. */
const goesOn = (rule: RunningRule, budget: number): boolean =>
  rule.isTooMuchWork ? rule.budget >= budget : rule.work <= budget;

/** One edit a cell: from its content before the whole change to its content now. */
function firstOfEachCell(effects: readonly Effect[], width: number): Extract<Effect, { kind: 'cell' }>[] {
  const seen = new Set<number>();
  return effects.filter((effect) => {
    if (effect.kind !== 'cell') return false;
    const cell = effect.slot * width + effect.column;
    return !seen.has(cell) && seen.add(cell);
  }) as Extract<Effect, { kind: 'cell' }>[];
}
