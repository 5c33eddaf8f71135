// Repeats and words over 100,000 texts, beside a hand-written loop over a dictionary of folded texts, in the same run.
import { randomLcg } from 'd3-random';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';
import { foldText } from '../../src/core/values/fold-text';
import { figure, ms } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { time } from './time';

const CELLS = 100_000;
const random = randomLcg(11);
const words = [
  'Alder Weir',
  'Birch Mill',
  'Cedar Ford',
  'Dipper Pool',
  'Elm Bridge',
  'Crew late',
  'bottle broken',
  'Ålder',
];
const texts = Array.from(
  { length: CELLS },
  () => `${words[Math.floor(random() * words.length)]} ${Math.floor(random() * 4000)}`,
);
const built = sheetOf(['f'], CELLS, (row) => [texts[row]!]);

function ruleTime(when: When): number {
  const evaluation = new Evaluation(built, {});
  return time(() => evaluation.setRules([ruleOver('f', when)]));
}

/** The contents of a store: each distinct text once, folded, and for each cell which one it holds. */
const distinct = [...new Set(texts)];
const codeOf = new Map(distinct.map((text, code) => [text, code]));
const codes = Uint32Array.from(texts, (text) => codeOf.get(text)!);
const bits = new Uint32Array((CELLS + 31) >>> 5);

function repeatsByHand(): void {
  const ids = new Map<string, number>();
  const idOf = Uint32Array.from(distinct, (text) => {
    const folded = foldText(text);
    if (!ids.has(folded)) ids.set(folded, ids.size);
    return ids.get(folded)!;
  });
  const counts = new Uint32Array(ids.size);
  for (let at = 0; at < CELLS; at++) counts[idOf[codes[at]!]!]!++;
  bits.fill(0);
  for (let at = 0; at < CELLS; at++) if (counts[idOf[codes[at]!]!]! > 1) bits[at >>> 5]! |= 1 << (at & 31);
}

function wordsByHand(): void {
  const has = Uint8Array.from(distinct, (text) => Number(foldText(text).includes('broken')));
  bits.fill(0);
  for (let at = 0; at < CELLS; at++) if (has[codes[at]!]) bits[at >>> 5]! |= 1 << (at & 31);
}

figure(
  'repeats, 100,000 texts',
  ms(ruleTime({ kind: 'repeat', is: 'repeated' })),
  `dictionary loop ${ms(time(repeatsByHand))}`,
  'within 2x',
);
figure(
  'contains a word, 100,000 texts',
  ms(ruleTime({ kind: 'text', is: 'contains', any: ['BROKEN'] })),
  `dictionary loop ${ms(time(wordsByHand))}`,
  'within 2x',
);
