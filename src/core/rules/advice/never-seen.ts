import { generateKeyBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';
import { cellAddress } from '../../sheet/address';
import type { Evaluation } from '../evaluate/evaluation';
import { sourcesOf } from '../evaluate/resolver';
import type { Adviser } from './advice';
import { putRules } from '../shape/stored-rule';

/** A rule that matches cells and shows in none of them: earlier rules have set everything that it would. */
export const neverSeen: Adviser = ({ evaluation, stored }) => {
  const seen = seenRules(evaluation);
  return evaluation.activeRules.flatMap((running, at) => {
    const { rule } = running;
    if (!running.works || seen.has(at) || running.shownCount() === 0) return [];
    const hidden = firstHidden(evaluation, at);
    if (!hidden) return [];
    const first = itemAt(stored, hidden.by);
    return [
      {
        rules: [rule.id, first.id],
        cells: [hidden.cell],
        message: `“${rule.name}” is never seen, because “${first.rule.name}” comes first. Put it before that rule.`,
        repair: [
          putRules([{ ...itemAt(stored, at), key: generateKeyBetween(stored[hidden.by - 1]?.key ?? null, first.key) }]),
        ],
      },
    ];
  });
};

/** Rules, by place, that set a property somewhere. */
function seenRules({ sheet, activeRules, resolver }: Evaluation): Set<number> {
  const seen = new Set<number>();
  const working = activeRules.filter(({ works }) => works).length;
  for (const slot of sheet.order) {
    if (seen.size === working) break;
    for (let column = 0; column < sheet.fields.length; column++)
      for (const at of resolver.resolve(column, slot).from.values()) seen.add(at);
  }
  return seen;
}

/** The first cell that a rule would paint, and the earlier rule that comes first there. */
function firstHidden(
  { sheet, activeRules, resolver }: Evaluation,
  at: number,
): { cell: string; by: number } | undefined {
  const one = itemAt(activeRules, at);
  for (const [position, slot] of sheet.order.entries())
    for (const column of one.painted) {
      if (!sourcesOf(one, column).some((source) => one.shows(source, slot))) continue;
      const by = resolver.resolve(column, slot).rules[0];
      if (by !== undefined && by < at) return { cell: cellAddress(column, position), by };
    }
  return undefined;
}
