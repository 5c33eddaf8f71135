import equal from 'fast-deep-equal';
import type { Evaluation } from '../rules/evaluate/evaluation';
import type { RunningRule } from '../rules/evaluate/running-rule';
import { kindOf, type When } from '../rules/kinds/registry';
import { recordName } from '../rules/explain/record-name';
import { stayCondition } from '../rules/shape/quiet';
import type { Rule } from '../rules/shape/rule';
import { namedFields } from '../rules/shape/named-fields';
import { sentenceWords } from '../rules/shape/sentence-words';
import type { FieldId, RowId, RuleId } from '../sheet/ids';
import { shownAt } from '../sheet/shown-cell';
import type { Report } from './quiet/quiet-cell';
import { QuietCells, type KeptQuiet } from './quiet/quiet-cells';

/** A cell that has entered a rule, or left it: it has a look by it since then, or no more. */
export interface Crossing {
  readonly rule: RuleId;
  readonly ruleName: string;
  /** Words for the outcome, for rules with several; empty for others. */
  readonly outcome: string;
  readonly way: 'entered' | 'left';
  readonly row: RowId;
  readonly field: FieldId;
  /** The names of the record and the field, and the shown text of the cell. */
  readonly record: string;
  readonly label: string;
  readonly after: string;
  /** How many cells have the rule's look now. */
  readonly painted: number;
}

/** Crossings of one moment, in milliseconds of the Unix epoch. */
export interface CrossingsAt {
  readonly at: number;
  readonly crossings: readonly Crossing[];
}

/** Findings of one rule that are reported at once: more are a change of everything. */
const MAX_CROSSINGS = 500;

const NONE = -1;

interface WatchedRule {
  readonly rule: Rule;
  /** By field: the outcome with a look of each slot, or NONE. Under a quiet rule a cell may have it for longer. */
  readonly outcomes: ReadonlyMap<FieldId, Int32Array>;
  /** Of a quiet rule: the cells of which more is known. */
  readonly quiet: QuietCells | null;
}

/** Scales and bars shade every number: nothing enters or leaves them. */
export const UNWATCHED_KINDS = ['scale', 'bar'] as const satisfies readonly When['kind'][];

/**
 * Remembers which cells each rule gives a look, and reports which have entered and left it since. A rule that has been
 * changed itself starts over: what differs then differs by its author's will. One that has a problem for a while (its
 * limits cross, say) goes on from where it was. Of a quiet rule less is reported, and some of it later.
 * Cost: a few operations for each cell that is read.
 */
export class RuleWatch {
  private held: ReadonlyMap<RuleId, WatchedRule>;
  /** The quiet rules of which is known what is kept elsewhere. */
  private kept = '';

  constructor(private readonly evaluation: Evaluation) {
    this.held = this.hold();
  }

  /** Starts over from the present state, with what was known of the cells of quiet rules. */
  restart(known: KeptQuiet = {}): void {
    this.held = this.hold();
    this.kept = Object.keys(known).join(' ');
    const { sheet } = this.evaluation;
    for (const [id, { quiet, outcomes }] of this.held)
      quiet?.restore(known[id] ?? [], ({ row, field }, outcome) => {
        const [codes, slot] = [outcomes.get(field), sheet.findSlot(row)];
        if (!codes || slot === undefined) return false;
        codes[slot] = outcome;
        return true;
      });
  }

  /** The cells that have entered and left each rule since the last call, as of a moment. */
  crossings(at: number): Crossing[] {
    const before = this.held;
    this.held = this.hold(before);
    return this.evaluation.activeRules.flatMap((running) => {
      const [was, is] = [before.get(running.rule.id), this.held.get(running.rule.id)];
      if (!was || !is || was === is || !equal(was.rule, is.rule)) return [];
      const words = new CrossingWords(this.evaluation, running);
      return words.crossings(is.quiet ? this.quietly(is.quiet, at, moves(was, is)) : loudly(at, moves(was, is)));
    });
  }

  /** Moves cells of a quiet rule, and gives what is reported of that. */
  private *quietly(quiet: QuietCells, at: number, moved: Iterable<Move>): Iterable<ReportOf> {
    const { sheet } = this.evaluation;
    for (const { field, slot, from, to } of moved)
      for (const report of quiet.move({ row: sheet.rowId(slot), field }, { at, from, to }))
        yield { ...report, field, slot };
  }

  /** What quiet rules report up to a moment, as time goes by. */
  due(until: number): CrossingsAt[] {
    const { sheet, activeRules } = this.evaluation;
    const found = new Map<number, Crossing[]>();
    for (const running of activeRules) {
      const watched = this.held.get(running.rule.id);
      if (!running.works || !watched?.quiet || watched.quiet.nextAt > until) continue;
      const words = new CrossingWords(this.evaluation, running);
      for (const { cell, report } of watched.quiet.report(until)) {
        const slot = sheet.findSlot(cell.row);
        if (slot === undefined || sheet.findColumn(cell.field) === undefined) continue;
        const some = words.crossings([{ ...report, slot, field: cell.field }]);
        found.set(report.at, [...(found.get(report.at) ?? []), ...some]);
      }
    }
    return [...found].sort(([one], [other]) => one - other).map(([at, crossings]) => ({ at, crossings }));
  }

  /** What is known of the cells of quiet rules; null where that is as it was at the last call. */
  takeQuiet(now: number): { readonly known: KeptQuiet; readonly nextAt: number } | null {
    const rules = [...this.held].flatMap(([id, { quiet }]) => (quiet ? [{ id, quiet }] : []));
    const ids = rules.map(({ id }) => id).join(' ');
    if (ids === this.kept && !rules.some(({ quiet }) => quiet.isChanged)) return null;
    this.kept = ids;
    const known = Object.fromEntries(rules.map(({ id, quiet }) => [id, quiet.take(now)]));
    return { known, nextAt: Math.min(Infinity, ...rules.map(({ quiet }) => quiet.nextAt)) };
  }

  /** The present state; for a rule that has a problem for a while, the state before: it goes on from there. */
  private hold(before?: ReadonlyMap<RuleId, WatchedRule>): Map<RuleId, WatchedRule> {
    const held = new Map<RuleId, WatchedRule>();
    for (const running of this.evaluation.activeRules) {
      const { rule } = running;
      const known = before?.get(rule.id);
      const was = known && equal(known.rule, rule) ? known : undefined;
      if (!running.works) {
        if (was) held.set(rule.id, was);
        continue;
      }
      if (UNWATCHED_KINDS.some((kind) => kind === rule.when.kind)) continue;
      const outcomes = new Map<FieldId, Int32Array>();
      const { sheet } = this.evaluation;
      for (const { column } of running.read) {
        const codes = new Int32Array(sheet.slotCount).fill(NONE);
        for (const slot of sheet.order) if (running.shows(column, slot)) codes[slot] = running.outcomeAt(column, slot);
        outcomes.set(sheet.field(column).id, codes);
      }
      const quiet = rule.quiet ? (was?.quiet ?? new QuietCells(rule.quiet)) : null;
      if (was && quiet) this.prolong(running, { was, outcomes, quiet });
      held.set(rule.id, { rule, outcomes, quiet });
    }
    return held;
  }

  /** Cells that the rule no longer matches stay in it until its limit to be armed again is passed. */
  private prolong(
    running: RunningRule,
    { was, outcomes, quiet }: { was: WatchedRule; outcomes: Map<FieldId, Int32Array>; quiet: QuietCells },
  ): void {
    const { sheet } = this.evaluation;
    const condition = stayCondition(running.rule);
    const judge = condition && running.judgeWith(condition);
    if (!judge) return;
    for (const [field, codes] of outcomes) {
      const earlier = was.outcomes.get(field);
      const column = sheet.findColumn(field);
      if (!earlier || column === undefined) continue;
      for (let slot = 0; slot < earlier.length; slot++) {
        const outcome = earlier[slot] ?? NONE;
        if (outcome === NONE || codes[slot] !== NONE || judge(column, slot) < 0) continue;
        codes[slot] = outcome;
        quiet.remember({ row: sheet.rowId(slot), field }, outcome);
      }
    }
  }
}

/** A cell whose outcome is another one. */
interface Move {
  readonly field: FieldId;
  readonly slot: number;
  readonly from: number;
  readonly to: number;
}

type ReportOf = Report & Pick<Move, 'field' | 'slot'>;

function* moves(was: WatchedRule, is: WatchedRule): Iterable<Move> {
  for (const [field, codes] of is.outcomes) {
    const earlier = was.outcomes.get(field);
    if (!earlier) continue;
    for (let slot = 0; slot < codes.length; slot++) {
      const [from, to] = [earlier[slot] ?? NONE, codes[slot] ?? NONE];
      if (from !== to) yield { field, slot, from, to };
    }
  }
}

/** A rule that is not quiet reports everything at once. */
function* loudly(at: number, moved: Iterable<Move>): Iterable<ReportOf> {
  for (const { field, slot, from, to } of moved) {
    if (from !== NONE) yield { way: 'left', outcome: from, at, field, slot };
    if (to !== NONE) yield { way: 'entered', outcome: to, at, field, slot };
  }
}

/** What is said of the cells that enter and leave one rule. */
class CrossingWords {
  private readonly painted: number;
  private readonly read: ReadonlySet<number>;
  private readonly words;
  private readonly fields;

  constructor(
    private readonly evaluation: Evaluation,
    private readonly running: RunningRule,
  ) {
    this.fields = namedFields(evaluation.sheet);
    this.words = sentenceWords(this.fields, running.rule.reads);
    this.painted = running.shownCount();
    this.read = new Set(running.read.map(({ column }) => column));
  }

  crossings(reports: Iterable<ReportOf>): Crossing[] {
    const found: Crossing[] = [];
    for (const report of reports) if (found.length < MAX_CROSSINGS) found.push(this.crossing(report));
    return found;
  }

  private crossing({ way, outcome, field, slot }: ReportOf): Crossing {
    const { sheet } = this.evaluation;
    const { rule } = this.running;
    const column = sheet.findColumn(field) ?? NONE;
    const isThere = sheet.findSlot(sheet.rowId(slot)) === slot && column !== NONE;
    return {
      rule: rule.id,
      ruleName: rule.name,
      way,
      outcome: kindOf(rule.when).outcomeName(rule.when, outcome, this.words),
      row: sheet.rowId(slot),
      field,
      record: isThere ? recordName(sheet, slot, this.read) : 'a deleted record',
      label: this.fields[column]?.label ?? '',
      after: isThere ? shownAt(sheet, column, slot) : '',
      painted: this.painted,
    };
  }
}
