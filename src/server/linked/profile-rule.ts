import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { binEdges, type Bin } from '../../core/stats/profile-values';
import { runStatement, type LinkedRow } from '../../linked/run-statement';
import type { LinkedProfile } from '../../protocol/linked-table';
import { ofTable } from './judge-rule';
import type { LinkedSheet } from './linked-sheet';

/** Distinct texts that are listed. */
const MAX_TEXTS = 40;

/** What the bench says of the values that a rule reads, over all records; null where the rule cannot be asked about. */
export async function profileRule(
  sheet: LinkedSheet,
  { rule }: { readonly rule: Rule },
): Promise<LinkedProfile | null> {
  const { linked, moment } = ofTable(sheet, [{ ...rule, on: true }]);
  if (linked.rules.some(({ problem }) => problem !== null)) return null;
  const thresholds = kindOf(rule.when)
    .thresholds(rule.when)
    .map(({ value }) => value);
  const [row = {}] = await sheet.ask((connection) => runStatement(connection, linked.values(thresholds)));
  const [numbers, dates] = [Number(row['numbers']), Number(row['dates'])];
  const [least, greatest] = [numberOf(row['least']), numberOf(row['greatest'])];
  const edges = least === null || greatest === null ? [] : binEdges(least, greatest, dates > numbers / 2);
  const [binned, texts] = await Promise.all([
    edges.length ? sheet.ask((connection) => runStatement(connection, linked.bins(edges))) : [],
    sheet.ask((connection) => runStatement(connection, linked.texts(MAX_TEXTS))),
  ]);
  return {
    numbers,
    dates,
    least,
    greatest,
    blanks: Number(row['blanks']),
    others: Number(row['others']),
    mean: numberOf(row['mean']),
    deviation: numberOf(row['deviation']),
    percentiles: Array.isArray(row['percentiles']) ? row['percentiles'].map(Number) : [],
    today: Math.floor(moment.now),
    bins: binsOf(edges, binned),
    texts: texts.map(({ text, count, outcome }) => ({
      text: String(text),
      count: Number(count),
      outcome: outcome === null ? -1 : Number(outcome),
    })),
    nearest: thresholds.map((_, place) => ({
      below: numberOf(row[`b${place + 1}`]),
      at: Number(row[`a${place + 1}`]),
      above: numberOf(row[`g${place + 1}`]),
    })),
  };
}

const numberOf = (value: unknown): number | null => (value === null || value === undefined ? null : Number(value));

interface FilledBin extends Pick<Bin, 'from' | 'to'> {
  count: number;
  readonly outcomes: number[];
}

/** Bins between edges, with how many numbers of each have each outcome. The last one takes its own end. */
function binsOf(edges: readonly number[], rows: readonly LinkedRow[]): Bin[] {
  const bins = edges.slice(1).map((to, at): FilledBin => ({ from: edges[at] ?? NaN, to, count: 0, outcomes: [] }));
  for (const { bin, outcome, count } of rows) {
    const held = bins[Math.min(Number(bin), bins.length) - 1];
    if (!held) continue;
    held.count += Number(count);
    if (outcome === null) continue;
    const place = Number(outcome);
    while (held.outcomes.length <= place) held.outcomes.push(0);
    held.outcomes[place] = (held.outcomes[place] ?? 0) + Number(count);
  }
  return bins;
}
