import { itemAt } from '../../values/item-at';
import { nestProperties, type LookProperty } from '../../looks/look';
import { cellAddress } from '../../sheet/address';
import type { Evaluation } from './evaluation';
import type { Problem } from '../terms';
import type { RunningRule } from './running-rule';
import { kindOf } from '../kinds/registry';

export interface RuleReport {
  readonly id: string;
  /** Addresses of the cells read that match, row by row. */
  readonly matched: readonly string[];
  readonly outcomes: Readonly<Record<string, unknown>> | null;
  readonly problem: Problem | null;
}

export interface EvaluateReport {
  readonly rules: readonly RuleReport[];
  readonly cells: Readonly<
    Record<string, { readonly look: Record<string, unknown>; readonly from: Record<string, unknown> }>
  >;
}

/**
 * The whole of an evaluation, as the command line prints it: what each rule matched, and every painted cell with its
 * look.
 */
export function reportEvaluation(evaluation: Evaluation): EvaluateReport {
  const { sheet, activeRules, resolver } = evaluation;
  const cells: Record<string, { look: Record<string, unknown>; from: Record<string, unknown> }> = {};
  sheet.order.forEach((slot, position) =>
    sheet.fields.forEach((_, column) => {
      const { properties, from } = resolver.resolve(column, slot);
      if (properties.size === 0) return;
      const ids = new Map<LookProperty, string>();
      for (const [name, index] of from) ids.set(name, itemAt(activeRules, index).rule.id);
      cells[cellAddress(column, position)] = { look: nestProperties(properties), from: nestProperties(ids) };
    }),
  );
  return { rules: activeRules.map((rule) => reportRule(rule, evaluation)), cells };
}

function reportRule(running: RunningRule, { sheet }: Evaluation): RuleReport {
  const matched: string[] = [];
  const several = running.works && kindOf(running.rule.when).outcomes === 'several';
  const outcomes: Record<string, unknown> = {};
  sheet.order.forEach((slot, position) => {
    for (const { column } of running.read) {
      const outcome = running.outcomeAt(column, slot);
      if (outcome < 0) continue;
      const address = cellAddress(column, position);
      matched.push(address);
      if (several) outcomes[address] = running.outcomeTold(column, slot);
    }
  });
  return { id: running.rule.id, matched, outcomes: several ? outcomes : null, problem: running.problem };
}
