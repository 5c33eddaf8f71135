import type { CellRange } from '../../sheet/address';
import type { RuleId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import type { Evaluation } from '../evaluate/evaluation';
import type { RunningRule } from '../evaluate/running-rule';

/**
 * The rules that read or paint a cell of some areas, in order of precedence; those with a problem reach nothing. Cost:
 * at most a look at each row.
 */
export function touchingRules({ sheet, activeRules }: Evaluation, areas: readonly CellRange[]): RuleId[] {
  return activeRules.filter((rule) => areas.some((area) => touches(rule, area, sheet))).map(({ rule }) => rule.id);
}

function touches({ rule, read, painted }: RunningRule, { left, right, top, bottom }: CellRange, sheet: Sheet): boolean {
  const isIn = (column: number): boolean => column >= left && column <= right;
  const rows = sheet.order.slice(top, bottom + 1);
  // A rule that paints elsewhere in the row paints there whichever of its fields was read.
  const paintsThere = rule.paints !== 'cell' && [...painted].some(isIn);
  return read.some(({ column, slots }) => (paintsThere || isIn(column)) && rows.some((slot) => slots.has(slot)));
}
