import type { Sheet } from '../../sheet/sheet';
import type { ExampleCell } from '../propose/evidence';
import { itemAt } from '../../values/item-at';
import type { Proposal } from './proposal';

interface Asked {
  readonly sheet: Sheet;
  /** The columns that were pointed at. */
  readonly columns: readonly number[];
  /** How many looks are wanted. */
  readonly looks: number;
}

/** Proposals that are this much worse than the best one have next to no weight. */
const MAX_BEHIND_BITS = 10;

/**
 * The cell whose answer leaves the least doubt between proposals: the one over which their weights are divided most
 * evenly (query by committee: H. Seung, M. Opper, H. Sompolinsky, COLT 1992). The topmost of several. Undefined where
 * all paint the same records. Cost: a pass over the words of their bit sets; single slots only where these differ.
 */
export function tellingCell(all: readonly Proposal[], { sheet, columns, looks }: Asked): ExampleCell | undefined {
  const [best] = all;
  const proposals = all.filter(({ bits }) => best && bits - best.bits < MAX_BEHIND_BITS);
  if (!best || proposals.length < 2) return undefined;
  const weights = proposals.map(({ bits }) => 2 ** (best.bits - bits));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const records = sheet.slotsWithRoles(['record']);
  // A doubt as large as without an answer is none worth asking of, whatever the rounding.
  let [least, found]: [number, ExampleCell | undefined] = [total * total * (1 - 1e-9), undefined];
  for (const column of columns) {
    const painted = proposals.map((each) =>
      Array.from({ length: looks }, (_, look) => each.painted.slotsOf(look, column).words),
    );
    for (let word = 0; word < records.words.length; word++) {
      const answers = painted.map((byLook) => byLook.map((words) => words[word] ?? 0));
      if (records.words[word] === 0 || !differ(answers)) continue;
      for (let bit = 0; bit < 32; bit++) {
        const slot = word * 32 + bit;
        if (!records.has(slot)) continue;
        const doubt = doubtLeft(answers, bit, weights);
        const isFirst = doubt === least && found && sheet.positionOf(slot) < sheet.positionOf(found.slot);
        if (doubt < least || isFirst) [least, found] = [doubt, { column, slot }];
      }
    }
  }
  return found;
}

/** Whether proposals give any of 32 rows different looks, by the words of their bit sets for each look. */
const differ = (answers: readonly (readonly number[])[]): boolean =>
  answers.some((byLook) => byLook.some((word, look) => word !== answers[0]?.[look]));

/** The sum of the squares of the weights behind each look that a row may get: the least where they are divided evenly. */
function doubtLeft(answers: readonly (readonly number[])[], bit: number, weights: readonly number[]): number {
  const looks = itemAt(answers, 0).length;
  let [sum, rest] = [0, 0];
  for (const weight of weights) rest += weight;
  for (let look = 0; look < looks; look++) {
    let behind = 0;
    answers.forEach((byLook, at) => {
      if (((byLook[look] ?? 0) >>> bit) & 1) behind += weights[at] ?? 0;
    });
    sum += behind * behind;
    rest -= behind;
  }
  return sum + rest * rest;
}
