import { keysOf, memberOf } from '../../../values/typed-keys';
import { itemAt } from '../../../values/item-at';
import { COMPARISONS, type ComparisonName } from '../../kinds/compare';
import { DATE_UNITS, DAYS_BY_TODAY, runOfDays, unitOfCalendar } from '../../kinds/date';
import { CHANGE_UNITS, MOVES, type ChangeWhen } from '../../kinds/change';
import type { TextWhen } from '../../kinds/text';
import type { When } from '../../kinds/registry';
import type { Operand } from '../../terms';

/** The operands after the words of a test. */
interface TestOperands {
  readonly operands: readonly Operand[];
  readonly count: number;
  readonly unit: string;
}

/** A test as it may be typed: its words, the first of them as it is offered. */
export interface PhraseTest {
  readonly words: readonly string[];
  /** How many operands follow, and what they may be. */
  readonly takes: 0 | 1 | 2;
  readonly operand: 'number' | 'any' | 'date' | 'text';
  /** True where a count may follow, such as the 7 of "in the last 7 days"; without one it is 1. */
  readonly counts?: boolean;
  /** True for a word that has other meanings where a field holds no texts. */
  readonly isOfTexts?: boolean;
  /** True where “to” and a second operand may follow: "from 500 to 700". */
  readonly ranges?: boolean;
  /** The test of a text for several values: "is weir or mill". */
  readonly several?: 'equals' | 'differs';
  /** The units of which one follows. */
  readonly units?: readonly string[];
  make(read: TestOperands): When;
}

const compare = (is: ComparisonName, operand: PhraseTest['operand'], ...words: readonly string[]): PhraseTest => ({
  words: words.flatMap((each) => [each, `is ${each}`, `are ${each}`]),
  takes: is === 'between' || is === 'outside' ? 2 : 1,
  operand,
  make: ({ operands: [one = 0, other] }) => ({ kind: 'compare', is, to: other === undefined ? one : [one, other] }),
});

const plain = (words: readonly string[], when: When): PhraseTest => ({
  words: words.flatMap((each) => [`is ${each}`, each, `are ${each}`]),
  takes: 0,
  operand: 'any',
  make: () => when,
});

/** A test with words that stand by themselves beside those after "is". */
const plainOr = (afterIs: readonly string[], others: readonly string[], when: When): PhraseTest => {
  const test = plain(afterIs, when);
  return { ...test, words: [...test.words, ...others] };
};

const textTest = (is: TextWhen['is'], ...words: readonly string[]): PhraseTest => ({
  words,
  takes: 1,
  operand: 'text',
  make: ({ operands }) => ({ kind: 'text', is, any: operands }),
});

const day = (is: 'before' | 'after' | 'on', ...words: readonly string[]): PhraseTest => ({
  words: words.flatMap((each) => [each, `is ${each}`]),
  takes: 1,
  operand: 'date',
  make: ({ operands }) => ({ kind: 'date', is, to: itemAt(operands, 0) }),
});

const span = (which: 'last' | 'next'): PhraseTest => ({
  words: [
    `in the ${which}`,
    which,
    ...['is in the', 'are in the', 'is', 'within the', 'is within the'].map((words) => `${words} ${which}`),
    ...(which === 'next' ? ['in', 'within', 'is within', 'is due in'] : []),
  ],
  takes: 0,
  operand: 'any',
  counts: true,
  units: DATE_UNITS,
  make: ({ count, unit }) => ({ kind: 'date', is: runOfDays(which, Math.max(1, count), memberOf(DATE_UNITS, unit)) }),
});

const move = (is: ChangeWhen['is'], short: string): PhraseTest => ({
  words: [`${short} in the last`, `${MOVES[is]} in the last`, `${short} within`, `${MOVES[is]} within`],
  takes: 0,
  operand: 'any',
  counts: true,
  units: CHANGE_UNITS,
  make: ({ count, unit }) => ({
    kind: 'change',
    is,
    within: { n: Math.max(1, count), unit: memberOf(CHANGE_UNITS, unit) },
  }),
});

/** "this month", "last week": `words` before a unit of the calendar, all said together. */
const calendar = (which: 'this' | 'previous' | 'following', ...words: readonly string[]): PhraseTest[] =>
  DATE_UNITS.map((unit) =>
    plain(
      words.flatMap((word) => [`${word} ${unit}`, `in ${word} ${unit}`]),
      { kind: 'date', is: unitOfCalendar(which, unit) },
    ),
  );

const OTHER_WORDS: Readonly<Record<keyof typeof DAYS_BY_TODAY, readonly string[]>> = {
  today: [],
  yesterday: [],
  tomorrow: [],
  past: ['overdue', 'before today', 'earlier than today'],
  future: ['after today', 'later than today'],
};

const byToday = keysOf(DAYS_BY_TODAY).map((is): PhraseTest =>
  plain([DAYS_BY_TODAY[is].replace(/^is /, ''), is, ...OTHER_WORDS[is]], { kind: 'date', is }),
);

/** Everything that can be asked of a field in words, in the order in which it is offered. */
export const PHRASE_TESTS: readonly PhraseTest[] = [
  compare('<', 'number', 'below', 'under', 'less than', 'lower than', 'smaller than', '<'),
  compare('>', 'number', 'above', 'over', 'more than', 'greater than', 'higher than', 'larger than', '>'),
  compare('<=', 'number', 'at most', 'up to', 'not above', 'not over', 'no more than', 'not more than', '<=', '≤'),
  compare('>=', 'number', 'at least', 'not below', 'not under', 'no less than', 'not less than', '>=', '≥'),
  compare('between', 'number', COMPARISONS.between.slice(3)),
  compare('outside', 'number', COMPARISONS.outside.slice(3), 'not between'),
  {
    ...compare('>=', 'number', 'from'),
    ranges: true,
    make: ({ operands: [one = 0, other] }) =>
      other === undefined
        ? { kind: 'compare', is: '>=', to: one }
        : { kind: 'compare', is: 'between', to: [one, other] },
  },
  plain(['negative'], { kind: 'compare', is: '<', to: 0 }),
  plain(['positive'], { kind: 'compare', is: '>', to: 0 }),
  plain(['zero'], { kind: 'compare', is: '=', to: 0 }),
  textTest('contains', 'contains', 'contain', 'containing'),
  { ...textTest('contains', 'with'), isOfTexts: true },
  textTest('lacks', 'does not contain', 'without'),
  textTest('starts', 'begins with', 'starts with'),
  textTest('ends', 'ends with'),
  textTest('equals', 'is one of', 'are one of', 'one of', 'is any of', 'any of'),
  textTest('differs', 'is not one of', 'is none of', 'not one of', 'none of'),
  plainOr(['blank', 'empty', 'missing'], ['has no value', 'have no value', 'has nothing'], {
    kind: 'state',
    is: 'blank',
  }),
  plainOr(['filled', 'not blank', 'not empty', 'not missing'], ['has a value', 'have a value'], {
    kind: 'state',
    is: 'filled',
  }),
  plain(['an error', 'wrong'], { kind: 'state', is: 'error' }),
  plain(['valid', 'not an error', 'no error', 'not wrong'], { kind: 'state', is: 'valid' }),
  plain(['a number'], { kind: 'state', is: 'number' }),
  plain(['a text', 'text'], { kind: 'state', is: 'text' }),
  plain(['a date'], { kind: 'state', is: 'date' }),
  plain(
    [
      'repeated',
      'a repeat',
      'met more than once',
      'occurring more than once',
      'a duplicate',
      'duplicate',
      'duplicated',
      'not unique',
    ],
    {
      kind: 'repeat',
      is: 'repeated',
    },
  ),
  plain(['unique', 'met only once', 'not a duplicate', 'not repeated'], { kind: 'repeat', is: 'unique' }),
  plain(['above average', 'above the average'], { kind: 'average', is: 'above' }),
  plain(['below average', 'below the average'], { kind: 'average', is: 'below' }),
  ...byToday,
  span('next'),
  span('last'),
  ...calendar('this', 'this'),
  ...calendar('previous', 'last', 'the previous', 'previous'),
  ...calendar('following', 'next', 'the following', 'following'),
  move('changed', 'changed'),
  move('rose', 'rose'),
  move('fell', 'fell'),
  day('before', 'before'),
  day('after', 'after'),
  day('on', 'on'),
  {
    ...compare('!=', 'any', 'not'),
    words: ['is not', 'are not', '<>', '≠', '!=', 'differs from', 'is other than'],
    several: 'differs',
  },
  { ...compare('=', 'any', 'is'), words: ['is', 'are', 'equals', 'equal to', 'is equal to', '='], several: 'equals' },
];
