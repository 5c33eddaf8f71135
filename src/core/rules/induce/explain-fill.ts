import type { Evaluation } from '../evaluate/evaluation';
import type { ExampleCell } from '../propose/evidence';
import type { HandFill } from './hand-fills';
import { proposeRules } from './propose-rules';
import type { Proposal } from './proposal';

/** A rule that explains a fill, with all cells where the two differ. */
export interface Explanation extends Proposal {
  readonly misses: readonly ExampleCell[];
}

/** Cells that a search begins with: filled ones and others. */
const FILLED = 6;
const OTHERS = 8;
/** Searches that begin with other cells: one that a slip of the hand is among may lead nowhere. */
const STARTS = 3;
/** From so many records on there is one search. */
const MANY_RECORDS = 20_000;
/** Steps of a search: each adds cells where the best rule so far is wrong. */
const STEPS = 6;
/** Bits for a cell that is filled otherwise than the rule says. */
const MISS_BITS = 8;
/** The share of the filled cells that may differ; one always may. */
const MAX_SLIPS = 0.15;
const MAX_TOLD = 3;

/**
 * The rules that say which records are filled, best first; a few cells may differ, which are slips of the hand. Each
 * search proposes rules from some cells, and adds those that the best of them gets wrong, until none is (induction
 * guided by counterexamples; beginnings with few cells, each apart, as in M. Fischler, R. Bolles, Random sample
 * consensus, CACM 24, 1981). None where no rule is good enough. Cost: up to 18 times that of `proposeRules`.
 */
export function explainFill(evaluation: Evaluation, fill: HandFill): Explanation[] {
  const found = new Map<string, Explanation>();
  const isLarge = evaluation.sheet.rowCount > MANY_RECORDS;
  for (let start = 0; start < (isLarge ? 1 : STARTS); start++) {
    const best = searchFrom(evaluation, fill, { start, found });
    if (best?.misses.length === 0) break;
  }
  const most = Math.max(1, Math.floor(fill.count * MAX_SLIPS));
  return [...found.values()]
    .filter(({ misses }) => misses.length <= most)
    .sort((a, b) => worth(a) - worth(b))
    .slice(0, MAX_TOLD);
}

const worth = ({ bits, misses }: Explanation): number => bits + MISS_BITS * misses.length;

function searchFrom(
  evaluation: Evaluation,
  fill: HandFill,
  { start, found }: { readonly start: number; readonly found: Map<string, Explanation> },
): Explanation | undefined {
  const { sheet } = evaluation;
  // Whole records are the same in each of their fields: one stands for all.
  const fields = fill.isRecord ? fill.fields.slice(0, 1) : fill.fields;
  const columns = fields.flatMap((id) => sheet.findColumn(id) ?? []);
  const [filled, others]: [number[], number[]] = [[], []];
  sheet.slotsWithRoles(['record']).forEach((slot) => (fill.slots.has(slot) ? filled : others).push(slot));
  const records = [...filled, ...others];
  const cellsAt = (slots: readonly number[]): ExampleCell[] =>
    columns.flatMap((column) => slots.map((slot) => ({ column, slot })));
  const pointed = new Set([...spread(filled, FILLED, start), ...spread(others, OTHERS, start)]);
  let best: Explanation | undefined;
  for (let step = 0; step < STEPS; step++) {
    const [wanted, unwanted] = [filled, others].map((slots) => slots.filter((slot) => pointed.has(slot)));
    const proposals = proposeRules(evaluation, {
      wanted: [{ look: { fill: fill.fill }, cells: cellsAt(wanted ?? []) }],
      unwanted: cellsAt(unwanted ?? []),
      paints: fill.isRecord ? 'record' : 'cell',
    });
    const explained = proposals.map((each) => ({ ...each, misses: missesOf(each, fill, { records, columns }) }));
    for (const each of explained) {
      const known = found.get(each.painted.signature);
      if (!known || worth(each) < worth(known)) found.set(each.painted.signature, each);
    }
    const [first] = [...explained].sort((a, b) => worth(a) - worth(b));
    if (!first) break;
    if (!best || worth(first) < worth(best)) best = first;
    if (first.misses.length === 0) break;
    const [missed] = first.misses.filter(({ slot }) => fill.slots.has(slot) && !pointed.has(slot));
    const [added] = first.misses.filter(({ slot }) => !fill.slots.has(slot) && !pointed.has(slot));
    if (!missed && !added) break;
    for (const cell of [missed, added]) if (cell) pointed.add(cell.slot);
  }
  return best;
}

/** Some members of a list, evenly apart, from a place on that is another for each start. */
function spread(slots: readonly number[], most: number, start: number): number[] {
  const step = Math.max(1, slots.length / most);
  const from = (step * start) / STARTS;
  return Array.from(
    { length: Math.min(most, slots.length) },
    (_, at) => slots[Math.floor(from + at * step)] ?? -1,
  ).filter((slot) => slot >= 0);
}

/** The records that are filled otherwise than a proposal paints them: of each the first field where that is so. */
function missesOf(
  { painted }: Proposal,
  { slots }: HandFill,
  { records, columns }: { readonly records: readonly number[]; readonly columns: readonly number[] },
): ExampleCell[] {
  const shown = columns.map((column) => ({ column, has: painted.anyOf(column) }));
  return records.flatMap((slot) => {
    const wrong = shown.find(({ has }) => has.has(slot) !== slots.has(slot));
    return wrong ? [{ column: wrong.column, slot }] : [];
  });
}
