import equal from 'fast-deep-equal';
import { itemAt } from '../values/item-at';
import type { Evaluation } from '../rules/evaluate/evaluation';
import { kindOf, type When } from '../rules/kinds/registry';
import { recordName } from '../rules/explain/record-name';
import type { Rule } from '../rules/shape/rule';
import type { RunningRule } from '../rules/evaluate/running-rule';
import { sentenceWords } from '../rules/shape/sentence-words';
import { columnLetters } from '../sheet/address';
import type { FieldId, RowId, RuleId } from '../sheet/ids';
import { shownAt } from '../sheet/shown-cell';

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

/** Findings of one rule that are reported at once: more are a change of everything. */
const MAX_CROSSINGS = 500;

const NONE = -1;

interface WatchedRule {
  readonly rule: Rule;
  /** By field: the outcome with a look of each slot, or NONE. */
  readonly outcomes: ReadonlyMap<FieldId, Int32Array>;
}

/** Scales and bars shade every number: nothing enters or leaves them. */
export const UNWATCHED_KINDS = ['scale', 'bar'] as const satisfies readonly When['kind'][];

/**
 * Remembers which cells each rule gives a look, and reports which have entered and left it since. A rule that has been
 * changed itself starts over: what differs then differs by its author's will. One that has a problem for a while (its
 * limits cross, say) goes on from where it was.
 * Cost: a few operations for each cell that is read.
 */
export class RuleWatch {
  private held: ReadonlyMap<RuleId, WatchedRule>;

  constructor(private readonly evaluation: Evaluation) {
    this.held = this.hold();
  }

  /** Starts over from the present state. */
  restart(): void {
    this.held = this.hold();
  }

  /** The cells that have entered and left each rule since the last call. */
  crossings(): Crossing[] {
    const before = this.held;
    this.held = this.hold(before);
    return this.evaluation.activeRules.flatMap((running) => {
      const [was, is] = [before.get(running.rule.id), this.held.get(running.rule.id)];
      return was && is && equal(was.rule, is.rule) ? this.between(running, was, is) : [];
    });
  }

  /** The present state; for a rule that has a problem for a while, the state before: it goes on from there. */
  private hold(before?: ReadonlyMap<RuleId, WatchedRule>): Map<RuleId, WatchedRule> {
    const { activeRules, sheet } = this.evaluation;
    const held = new Map<RuleId, WatchedRule>();
    for (const rule of activeRules) {
      if (!rule.works) {
        const was = before?.get(rule.rule.id);
        if (was && equal(was.rule, rule.rule)) held.set(rule.rule.id, was);
        continue;
      }
      if (UNWATCHED_KINDS.some((kind) => kind === rule.rule.when.kind)) continue;
      const outcomes = new Map<FieldId, Int32Array>();
      for (const { column } of rule.read) {
        const codes = new Int32Array(sheet.slotCount).fill(NONE);
        for (const slot of sheet.order) if (rule.shows(column, slot)) codes[slot] = rule.outcomeAt(column, slot);
        outcomes.set(sheet.field(column).id, codes);
      }
      held.set(rule.rule.id, { rule: rule.rule, outcomes });
    }
    return held;
  }

  private between(running: RunningRule, was: WatchedRule, is: WatchedRule): Crossing[] {
    const { sheet } = this.evaluation;
    const { rule } = running;
    const fields = sheet.fields.map((field, column) => ({
      ...field,
      label: sheet.labelOf(column) ?? columnLetters(column),
    }));
    const words = sentenceWords(fields, rule.reads);
    const painted = running.shownCount();
    const read = new Set(running.read.map(({ column }) => column));
    const found: Crossing[] = [];
    for (const [field, codes] of is.outcomes) {
      const column = sheet.findColumn(field)!;
      const earlier = was.outcomes.get(field);
      if (!earlier) continue;
      for (let slot = 0; slot < codes.length && found.length < MAX_CROSSINGS; slot++) {
        const [from, to] = [earlier[slot] ?? NONE, codes[slot]!];
        if (from === to) continue;
        const isThere = sheet.findSlot(sheet.rowId(slot)) === slot;
        const cell = {
          rule: rule.id,
          ruleName: rule.name,
          row: sheet.rowId(slot),
          field,
          record: isThere ? recordName(sheet, slot, read) : 'a deleted record',
          label: itemAt(fields, column).label,
          after: isThere ? shownAt(sheet, column, slot) : '',
          painted,
        };
        const says = (outcome: number): string => kindOf(rule.when).outcomeName(rule.when, outcome, words);
        if (from !== NONE) found.push({ ...cell, way: 'left', outcome: says(from) });
        if (to !== NONE) found.push({ ...cell, way: 'entered', outcome: says(to) });
      }
    }
    return found;
  }
}
