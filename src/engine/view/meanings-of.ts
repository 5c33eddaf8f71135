import { ruleMeaning, type RuleMeaning } from '../../core/rules/shape/rule-meaning';
import type { LegendEntry, ShownField } from '../../protocol/sheet-view';

/** The legend for those who only read. Rules that are off or cannot work are left out. */
export const meaningsOf = (legend: readonly LegendEntry[], fields: readonly ShownField[]): RuleMeaning[] =>
  legend.filter(({ rule, problem }) => rule.on && !problem).map((entry) => ruleMeaning(entry, fields));
