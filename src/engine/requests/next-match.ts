import type { CellPosition } from '../../core/sheet/cell-position';
import { itemAt } from '../../core/values/item-at';
import type { RuleId } from '../../core/sheet/ids';
import type { Replica } from '../replica/replica';

/**
 * The next cell below a position that a rule gives a look, from the top again after the last; null where there is none.
 */
export function nextMatch({ evaluation, given, sheet }: Replica, rule: RuleId, after: number): CellPosition | null {
  const running = evaluation.activeRules.find((candidate) => candidate.rule.id === rule);
  const { order, fields } = sheet;
  const columns = running?.read.map(({ column }) => column) ?? (given ? fields.map((_, column) => column) : []);
  const shows = (column: number, slot: number): boolean =>
    running?.shows(column, slot) ?? given?.isMadeBy(rule, column, slot) ?? false;
  for (let step = 1; columns.length > 0 && step <= order.length; step++) {
    const position = (after + step) % order.length;
    const column = columns.find((candidate) => shows(candidate, itemAt(order, position)));
    if (column !== undefined) return { column, position };
  }
  return null;
}
