import { keysOf, memberOf } from '../../../values/typed-keys';
import { itemAt } from '../../../values/item-at';
import { COMPARISONS, type ComparisonName } from '../../kinds/compare';
import { DATE_UNITS, DAYS_BY_TODAY, runOfDays, unitOfCalendar } from '../../kinds/date';
import { CHANGE_UNITS, MOVES, type ChangeWhen } from '../../kinds/change';
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
  /** True where a count follows, such as the 7 of "in the last 7 days". */
  readonly counts?: boolean;
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

const textTest = (is: 'contains' | 'lacks' | 'starts' | 'ends', ...words: readonly string[]): PhraseTest => ({
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
  words: [`in the ${which}`, `is in the ${which}`, which],
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

const calendar = (which: 'this' | 'previous' | 'following'): PhraseTest => ({
  words: which === 'this' ? ['this', 'in this', 'is this'] : [`in the ${which}`, which],
  takes: 0,
  operand: 'any',
  units: DATE_UNITS,
  make: ({ unit }) => ({ kind: 'date', is: unitOfCalendar(which, memberOf(DATE_UNITS, unit)) }),
});

const byToday = keysOf(DAYS_BY_TODAY).map((is): PhraseTest =>
  plain([DAYS_BY_TODAY[is].replace(/^is /, ''), is, ...(is === 'past' ? ['overdue'] : [])], { kind: 'date', is }),
);

/** Everything that can be asked of a field in words, in the order in which it is offered. */
export const PHRASE_TESTS: readonly PhraseTest[] = [
  compare('<', 'number', 'below', 'under', 'less than', 'lower than', '<'),
  compare('>', 'number', 'above', 'over', 'more than', 'greater than', 'higher than', '>'),
  compare('<=', 'number', 'at most', 'up to', '<='),
  compare('>=', 'number', 'at least', 'from', '>='),
  compare('between', 'number', COMPARISONS.between.slice(3)),
  compare('outside', 'number', COMPARISONS.outside.slice(3)),
  textTest('contains', 'contains', 'containing', 'with'),
  textTest('lacks', 'does not contain', 'without'),
  textTest('starts', 'begins with', 'starts with'),
  textTest('ends', 'ends with'),
  plain(['blank', 'empty', 'missing'], { kind: 'state', is: 'blank' }),
  plain(['filled'], { kind: 'state', is: 'filled' }),
  plain(['an error', 'wrong'], { kind: 'state', is: 'error' }),
  plain(['repeated', 'a repeat', 'met more than once'], { kind: 'repeat', is: 'repeated' }),
  plain(['unique', 'met only once'], { kind: 'repeat', is: 'unique' }),
  plain(['above average', 'above the average'], { kind: 'average', is: 'above' }),
  plain(['below average', 'below the average'], { kind: 'average', is: 'below' }),
  ...byToday,
  span('next'),
  span('last'),
  calendar('this'),
  calendar('previous'),
  calendar('following'),
  move('changed', 'changed'),
  move('rose', 'rose'),
  move('fell', 'fell'),
  day('before', 'before'),
  day('after', 'after'),
  day('on', 'on'),
  { ...compare('!=', 'any', 'not'), words: ['is not', '<>', 'differs from'] },
  { ...compare('=', 'any', 'is'), words: ['is', 'equals', '='] },
];
