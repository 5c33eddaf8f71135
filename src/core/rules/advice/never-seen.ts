import { generateKeyBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';
import { cellAddress } from '../../sheet/address';
import type { Evaluation } from '../evaluate/evaluation';
import { sourcesOf } from '../evaluate/resolver';
import type { Adviser, AdviceContext } from './advice';
import { outcomeLooks } from './outcome-looks';
import { putRules } from '../shape/stored-rule';

/**
 * A rule that matches cells and shows in none of them, since earlier rules have set everything that it would: its fill
 * is what counts, where it has one, whatever trace of it remains.
 */
export const neverSeen: Adviser = (context) => {
  const { evaluation, stored } = context;
  const filling = fillingRules(context);
  return evaluation.activeRules.flatMap((running, at) => {
    const { rule } = running;
    if (!running.works || running.shownCount() === 0 || isSeen(evaluation, at, filling.has(rule.id))) return [];
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

/** The rules that have a fill in one of their looks. */
const fillingRules = (context: AdviceContext): ReadonlySet<string> =>
  new Set(outcomeLooks(context).flatMap(({ rule, properties }) => (properties.has('fill') ? [rule] : [])));

/**
 * Whether a rule sets its fill somewhere, or any property where it has none. Looks at its own cells alone, and no
 * further than the first that shows it.
 */
function isSeen({ activeRules, resolver }: Evaluation, at: number, fills: boolean): boolean {
  const one = itemAt(activeRules, at);
  const sets = (column: number, slot: number): boolean => {
    for (const [property, by] of resolver.resolve(column, slot).from)
      if (by === at && (property === 'fill' || !fills)) return true;
    return false;
  };
  return [...one.painted].some((column) =>
    sourcesOf(one, column).some((source) => one.outcomes.get(source)?.has.some((slot) => sets(column, slot))),
  );
}

/** The first cell that a rule would paint, and the earlier rule that comes first there. */
function firstHidden(
  { sheet, activeRules, resolver }: Evaluation,
  at: number,
): { cell: string; by: number } | undefined {
  const one = itemAt(activeRules, at);
  const painted = Array.from(one.painted, (column) => ({ column, sources: sourcesOf(one, column) }));
  for (const [position, slot] of sheet.order.entries())
    for (const { column, sources } of painted) {
      if (!sources.some((source) => one.shows(source, slot))) continue;
      const by = resolver.resolve(column, slot).rules[0];
      if (by !== undefined && by < at) return { cell: cellAddress(column, position), by };
    }
  return undefined;
}
