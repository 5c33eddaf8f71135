import type { Look } from '../../looks/look';
import { shownAt } from '../../sheet/shown-cell';
import type { Sheet } from '../../sheet/sheet';
import type { RuleWorld } from '../compile/compile-context';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Comparison, Kernel } from '../kinds/kind';
import { kindOf, type When } from '../kinds/registry';
import type { Rule } from '../shape/rule';
import type { Problem } from '../terms';

/** What is known of a rule where only some of the records are here: its outcomes, or a condition that gives the same. */
export type GivenRule =
  | { readonly at: (column: number, slot: number) => number }
  | { readonly when: When }
  | { readonly problem: Problem };

/** Rules that look at all records cannot be evaluated over some: who has all of them says what they come to. */
export interface GivenOutcomes {
  of(rule: Rule): GivenRule;
}

/** The environment of rules, where maybe not all records are here. */
export interface EvaluationWorld extends RuleWorld {
  readonly given?: GivenOutcomes | null;
}

/** A condition whose outcomes were worked out elsewhere. */
export class GivenKernel implements Kernel {
  readonly inputs = { sameRow: [], wholeColumns: [], cells: [] };
  private readonly looks: readonly (Look | null)[] | undefined;

  constructor(
    private readonly rule: Rule,
    private readonly sheet: Sheet,
    private readonly at: (column: number, slot: number) => number,
  ) {
    this.looks = kindOf(rule.when).outcomeLooks(rule.when);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.at(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    return this.at(column, slot);
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(outcome: number): Look | null | undefined {
    return this.looks && (this.looks[outcome % Math.max(1, this.looks.length)] ?? null);
  }

  explain(column: number, slot: number): Comparison {
    const words = { field: String, operand: String };
    return {
      left: shownAt(this.sheet, column, slot) || 'blank',
      relation: kindOf(this.rule.when).sentence(this.rule.when, words),
      right: 'of all records',
    };
  }
}
