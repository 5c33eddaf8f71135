import type { CellRange } from '../sheet/address';
import type { RuleId } from '../sheet/ids';
import type { Evaluation } from './evaluation';
import type { RunningRule } from './running-rule';

/** The rules that read or paint a cell of some areas, in order of precedence; those with a problem reach nothing. Cost: at most a look at each row. */
export function touchingRules({ sheet, running }: Evaluation, areas: readonly CellRange[]): RuleId[] {
  const isIn = (column: number): boolean => areas.some(({ left, right }) => column >= left && column <= right);
  const rows = areas.flatMap(({ top, bottom }) => Array.from(sheet.order.slice(top, bottom + 1)));
  const touches = ({ read, painted }: RunningRule): boolean =>
    read.some(({ column, slots }) => (isIn(column) || [...painted].some(isIn)) && rows.some((slot) => slots.has(slot)));
  return running.filter(touches).map(({ rule }) => rule.id);
}
