// Rules over 50,000 records, each beside the loop over typed arrays that is its limit, and row objects as a plain
// program has them.
import { randomLcg, randomLogNormal } from 'd3-random';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';
import { foldText } from '../../src/core/values/fold-text';
import { median } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { timed } from './time';
import { between, containing, deviationsAbove, recordTest, repeated, topTenth } from './tight-loops';

const RECORDS = 50_000;
const NUMBERS = Array.from({ length: 12 }, (_, at) => `n${at}`);
const random = randomLcg(7);
const wide = randomLogNormal.source(random)(8, 0.3);
const WORDS = ['Alder', 'Birch', 'Cedar', 'Dipper', 'Elm', 'Ford', 'late', 'brökèn', 'Ålder', 'bottle', 'Pool', 'Mill'];

const numbers = NUMBERS.map((_, field) =>
  Float64Array.from({ length: RECORDS }, () =>
    random() < 0.03 ? NaN : field % 3 === 0 ? Math.round(wide() * 100) / 100 : Math.round(random() * 100_000) / 100,
  ),
);
const word = (): string => WORDS[Math.floor(random() * WORDS.length)]!;
const texts = [
  Array.from({ length: RECORDS }, () => `${word()} ${Math.floor(random() * 1000)}`),
  Array.from({ length: RECORDS }, () => `${word()} ${word()} ${word()} ${Math.floor(random() * 20_000)}`),
];
const STATES = ['open', 'late', 'done', 'void'];
const states = Array.from({ length: RECORDS }, () => Math.floor(random() * STATES.length));
const objects = Array.from({ length: RECORDS }, (_, row) => ({
  numbers: NUMBERS.map((__, field) => ({ value: numbers[field]![row]! })),
  texts: texts.map((list) => ({ value: list[row]! })),
  state: { value: STATES[states[row]!]! },
}));
const builtSheet = () =>
  sheetOf([...NUMBERS, 't0', 't1', 't2'], RECORDS, (row) => [
    ...numbers.map((list) => (Number.isNaN(list[row]!) ? '' : String(list[row]))),
    ...texts.map((list) => list[row]!),
    STATES[states[row]!]!,
  ]);
const sheet = builtSheet();

/** The folded texts of a field once each, joined, and which of them each record has. */
const dictionaries = texts.map((list) => {
  const ids = new Map<string, number>([['', 0]]);
  const of = Uint32Array.from(list, (text) => {
    const folded = foldText(text);
    if (!ids.has(folded)) ids.set(folded, ids.size);
    return ids.get(folded)!;
  });
  const starts = new Uint32Array(ids.size);
  let end = 0;
  for (const [text, id] of ids) {
    starts[id] = end;
    end += text.length + 1;
  }
  return { ids: of, idCount: ids.size, flat: `${[...ids.keys()].join('\n')}\n`, starts };
});

/** In formulas a blank is 0. */
const operands = numbers.map((list) => list.map((value) => (value === value ? value : 0)));
const stateIds = Uint32Array.from(states);

export interface Work {
  readonly what: string;
  readonly rules: readonly (readonly [field: string, when: When])[];
  readonly loop: () => readonly Uint32Array[];
  readonly plain: () => unknown;
  readonly aim: number;
}

const overNumbers = (when: When) => NUMBERS.map((field) => [field, when] as const);
const eachField = <T>(take: (field: number) => T): T[] => NUMBERS.map((_, field) => take(field));
const matching = (field: number, holds: (value: number) => boolean) =>
  objects.filter((record) => holds(record.numbers[field]!.value));

export const works: readonly Work[] = [
  {
    what: 'threshold, 12 fields of numbers',
    rules: overNumbers({ kind: 'compare', is: '<', to: 300 }),
    loop: () => numbers.map((list) => between(list, -Infinity, 300)),
    plain: () => eachField((field) => matching(field, (value) => value < 300)),
    aim: 1.5,
  },
  {
    what: 'between, and not blank, 12 fields of numbers',
    rules: NUMBERS.flatMap((field) => [
      [field, { kind: 'compare', is: 'between', to: [200, 500] }] as const,
      [field, { kind: 'state', is: 'filled' }] as const,
    ]),
    // Numbers have two decimals: both ends are in.
    loop: () => numbers.flatMap((list) => [between(list, 200, 500.005), between(list, -Infinity, Infinity)]),
    plain: () =>
      eachField((field) => [
        matching(field, (value) => value >= 200 && value <= 500),
        matching(field, (value) => value === value),
      ]),
    aim: 1.5,
  },
  {
    what: 'above the mean by 1.5 deviations, 12 fields',
    rules: overNumbers({ kind: 'average', is: 'above', deviations: 1.5 }),
    // No number is the edge itself, or the results would differ.
    loop: () => numbers.map((list) => between(list, deviationsAbove(list, 1.5), Infinity)),
    plain: () =>
      eachField((field) => {
        const edge = deviationsAbove(
          Float64Array.from(objects, (record) => record.numbers[field]!.value),
          1.5,
        );
        return matching(field, (value) => value > edge);
      }),
    aim: 2,
  },
  {
    what: 'top 10 % with ties, 12 fields',
    rules: overNumbers({ kind: 'rank', is: 'top', percent: 10 }),
    loop: () => numbers.map((list) => between(list, topTenth(list), Infinity)),
    plain: () =>
      eachField((field) => {
        const list = objects.map((record) => record.numbers[field]!.value).filter((value) => value === value);
        const edge = list.sort((a, b) => b - a)[Math.max(1, Math.floor(list.length / 10)) - 1]!;
        return matching(field, (value) => value >= edge);
      }),
    aim: 2,
  },
  {
    what: 'repeats, 2 fields of texts',
    rules: [
      ['t0', { kind: 'repeat', is: 'repeated' }],
      ['t1', { kind: 'repeat', is: 'repeated' }],
    ],
    loop: () => dictionaries.map(({ ids, idCount }) => repeated(ids, idCount)),
    plain: () =>
      texts.map((_, field) => {
        const counts = new Map<string, number>();
        for (const record of objects) {
          const folded = foldText(record.texts[field]!.value);
          counts.set(folded, (counts.get(folded) ?? 0) + 1);
        }
        return objects.filter((record) => counts.get(foldText(record.texts[field]!.value))! > 1);
      }),
    aim: 2,
  },
  {
    what: 'contains a word, whatever its case and accents',
    rules: [['t1', { kind: 'text', is: 'contains', any: ['BROKEN'] }]],
    loop: () => [containing(dictionaries[1]!, 'broken')],
    plain: () => objects.filter((record) => foldText(record.texts[1]!.value).includes('broken')),
    aim: 2,
  },
  {
    what: 'record formula with a text and numbers',
    rules: [['n0', { kind: 'formula', formula: '=AND($A1>$B1*0.9;OR($O1="late";$C1>=$D1))' }]],
    loop: () => [recordTest(operands, { factor: 0.9, ids: stateIds, wanted: 1 })],
    plain: () =>
      objects.filter(({ numbers: [a, b, c, d], state }) => {
        const of = (cell: { value: number } | undefined): number => (cell!.value === cell!.value ? cell!.value : 0);
        return of(a) > of(b) * 0.9 && (state.value.toLowerCase() === 'late' || of(c) >= of(d));
      }),
    aim: 3,
  },
];

const evaluation = new Evaluation(sheet, {});
const judged = (rules: Work['rules'], by = evaluation): readonly Uint32Array[] => {
  by.setRules(rules.map(([field, when], at) => ruleOver(field, when, `r${at}`)));
  return by.activeRules.flatMap((rule) => [...rule.outcomes.values()].map(({ has }) => has.words));
};

/** Fails where the rules and the loop of a work match different records. */
export function compare({ what, rules, loop }: Work): void {
  const [ours, theirs] = [judged(rules), loop()];
  const differs = theirs.findIndex((bits, at) => bits.some((word, place) => word !== (ours[at]?.[place] ?? 0)));
  if (differs >= 0) throw new Error(`${what}: the rule and the loop match different records in field ${differs}`);
}

/** The rules and the loop of a work in turns: medians in milliseconds, and of the ratios of the rounds. */
export function inTurns({ rules, loop }: Work, count: number): { rule: number; limit: number; ratio: number } {
  const rounds = Array.from({ length: count }, () => ({ rule: timed(() => judged(rules)), limit: timed(loop) }));
  return {
    rule: median(rounds.map(({ rule }) => rule)),
    limit: median(rounds.map(({ limit }) => limit)),
    ratio: median(rounds.map(({ rule, limit }) => rule / limit)),
  };
}

/** How long the rules of a work take in a sheet that has had none before. */
export function firstTime({ rules }: Work): number {
  const fresh = new Evaluation(builtSheet(), {});
  return timed(() => judged(rules, fresh));
}
