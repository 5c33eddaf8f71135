// Financial functions (ISO/IEC 26300-4, 6.12). Money paid out is negative; `due` is 1 where payments fall at the
// beginning of a period.
import { itemAt } from '../../values/item-at';
import { finite, FormulaError, settled } from '../values/formula-value';
import { spend } from '../values/place';
import { allNumbers, define, integer, number, numbers, optional } from './function-spec';

/** Periods that are gone through one by one. */
const MAX_PERIODS = 100_000;

/** The factor that a sum grows by over a number of periods, and that a payment of 1 a period grows to. */
function growth(rate: number, periods: number): { sum: number; payments: number } {
  if (rate === 0) return { sum: 1, payments: periods };
  const sum = settled((1 + rate) ** periods);
  // By way of the logarithm where the rate is so small that 1 + rate has lost it.
  const grown = Math.abs(rate) < 1e-5 ? settled(Math.expm1(periods * Math.log1p(rate))) : sum - 1;
  return { sum, payments: grown / rate };
}

interface Loan {
  readonly rate: number;
  readonly periods: number;
  readonly present: number;
  readonly future: number;
  readonly due: number;
}

const isDue = (due: number): number => (due === 0 ? 0 : 1);

function payment({ rate, periods, present, future, due }: Loan): number {
  const { sum, payments } = growth(rate, periods);
  return -(present * sum + future) / (payments * (1 + rate * isDue(due)));
}

function futureValue(
  rate: number,
  periods: number,
  { paid, present, due }: { paid: number; present: number; due: number },
): number {
  const { sum, payments } = growth(rate, periods);
  return -(present * sum + paid * (1 + rate * isDue(due)) * payments);
}

/** Interest paid in a period, counted from 1. */
function interest(loan: Loan, period: number): number {
  const { rate, present, due } = loan;
  if (period === 1 && isDue(due)) return 0;
  const paid = payment(loan);
  const owed = futureValue(rate, period - 1 - isDue(due), { paid, present: present + (isDue(due) ? paid : 0), due: 0 });
  return owed * rate;
}

/** Beyond it everything is worth nothing now, and every rate would pass for a root. */
const MAX_RATE = 1e6;

/** Finds a root of a function: Newton's steps by secants from a guess, and where they diverge, bisection. */
function findRoot(of: (x: number) => number, guess: number): number | FormulaError {
  let [x0, x1] = [guess, guess === 0 ? 0.01 : guess * 1.1];
  let [y0, y1] = [of(x0), of(x1)];
  for (let step = 0; step < 60 && Number.isFinite(y1) && y1 !== y0; step++) {
    const next = x1 - (y1 * (x1 - x0)) / (y1 - y0);
    if (!(next > -1 && next < MAX_RATE)) break;
    [x0, y0, x1, y1] = [x1, y1, next, of(next)];
    if (Math.abs(x1 - x0) <= 1e-15 * Math.max(1, Math.abs(x1))) return settled(x1);
  }
  if (Math.abs(y1) < 1e-9 && x1 > -1 && x1 < MAX_RATE) return settled(x1);
  return bisect(of);
}

/** Looks for a change of sign over rates from -99.99 % to 10,000 %, and halves it down to the last bit. */
function bisect(of: (x: number) => number): number | FormulaError {
  const grid = [
    -0.9999, -0.9, -0.5, -0.2, -0.1, -0.05, -0.01, -1e-6, 1e-6, 0.01, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 100,
  ];
  for (let at = 1; at < grid.length; at++) {
    let [low, high] = [itemAt(grid, at - 1), itemAt(grid, at)];
    const sign = Math.sign(of(low));
    if (!Number.isFinite(of(low)) || sign === Math.sign(of(high))) continue;
    for (let step = 0; step < 80; step++) {
      const middle = (low + high) / 2;
      if (Math.sign(of(middle)) === sign) low = middle;
      else high = middle;
    }
    return settled((low + high) / 2);
  }
  return FormulaError.number;
}

function periodsOf(
  rate: number,
  paid: number,
  { present, future, due }: Omit<Loan, 'rate' | 'periods'>,
): number | FormulaError {
  if (rate === 0) return paid === 0 ? FormulaError.divideByZero : -(present + future) / paid;
  const level = (paid * (1 + rate * isDue(due))) / rate;
  return finite(settled(Math.log((level - future) / (level + present)) / Math.log(1 + rate)));
}

const netPresent = (rate: number, values: readonly number[]): number =>
  values.reduceRight((later, value) => (later + value) / (1 + rate), 0);

const loanParameters = [
  number('rate'),
  number('periods'),
  number('present value'),
  optional(number('future value'), 0),
  optional(number('due'), 0),
] as const;
const periodParameters = [
  number('rate'),
  integer('period'),
  number('periods'),
  number('present value'),
  optional(number('future value'), 0),
  optional(number('due'), 0),
] as const;

function inPeriod(name: string, says: string, compute: (loan: Loan, period: number) => number) {
  return define({ name, says }, periodParameters, ([rate, period, periods, present, future, due]) =>
    period < 1 || period > periods
      ? FormulaError.number
      : finite(compute({ rate, periods, present, future, due }, period)),
  );
}

function decline(
  cost: number,
  salvage: number,
  { life, period, factor }: { life: number; period: number; factor: number },
): number {
  const rate = Math.min(1, factor / life);
  let left = cost;
  let written = 0;
  for (let at = 1; at <= period; at++) {
    written = Math.max(0, Math.min(left * rate, left - salvage));
    left -= written;
  }
  return written;
}

export const MONEY = [
  define(
    { name: 'PMT', says: 'the payment of each period of a loan' },
    loanParameters,
    ([rate, periods, present, future, due]) =>
      periods === 0 ? FormulaError.number : finite(payment({ rate, periods, present, future, due })),
  ),
  inPeriod('IPMT', 'the interest in the payment of one period', interest),
  inPeriod(
    'PPMT',
    'the principal in the payment of one period',
    (loan, period) => payment(loan) - interest(loan, period),
  ),
  define(
    { name: 'CUMIPMT', says: 'the interest in the payments of several periods' },
    [number('rate'), number('periods'), number('present value'), integer('from'), integer('to'), integer('due')],
    ([rate, periods, present, from, to, due], place) => {
      if (rate <= 0 || from < 1 || to < from || to > periods || periods > MAX_PERIODS) return FormulaError.number;
      spend(place, to - from);
      let sum = 0;
      for (let period = from; period <= to; period++)
        sum += interest({ rate, periods, present, future: 0, due }, period);
      return finite(sum);
    },
  ),
  define(
    { name: 'FV', says: 'what payments come to in the end' },
    [
      number('rate'),
      number('periods'),
      number('payment'),
      optional(number('present value'), 0),
      optional(number('due'), 0),
    ],
    ([rate, periods, paid, present, due]) => finite(futureValue(rate, periods, { paid, present, due })),
  ),
  define(
    { name: 'PV', says: 'what payments are worth now' },
    [
      number('rate'),
      number('periods'),
      number('payment'),
      optional(number('future value'), 0),
      optional(number('due'), 0),
    ],
    ([rate, periods, paid, future, due]) => {
      const { sum, payments } = growth(rate, periods);
      return finite(-(future + paid * (1 + rate * isDue(due)) * payments) / sum);
    },
  ),
  define(
    { name: 'NPER', says: 'how many payments there are' },
    [
      number('rate'),
      number('payment'),
      number('present value'),
      optional(number('future value'), 0),
      optional(number('due'), 0),
    ],
    ([rate, paid, present, future, due]) => periodsOf(rate, paid, { present, future, due }),
  ),
  define(
    { name: 'RATE', says: 'the rate of interest of each period' },
    [
      number('periods'),
      number('payment'),
      number('present value'),
      optional(number('future value'), 0),
      optional(number('due'), 0),
      optional(number('guess'), 0.1),
    ],
    ([periods, paid, present, future, due, guess]) =>
      periods <= 0
        ? FormulaError.number
        : findRoot((rate) => futureValue(rate, periods, { paid, present, due }) - future, guess),
  ),
  define(
    { name: 'NPV', says: 'what payments at the end of each period are worth now' },
    [number('rate'), allNumbers()],
    ([rate, lists]) => (rate === -1 ? FormulaError.divideByZero : finite(netPresent(rate, lists.flat()))),
  ),
  define(
    { name: 'IRR', says: 'the rate at which payments are worth nothing now' },
    [numbers('numbers'), optional(number('guess'), 0.1)],
    ([values, guess], place) => {
      const worthAt = (rate: number): number => {
        spend(place, values.length);
        return netPresent(rate, values);
      };
      return values.some((value) => value < 0) && values.some((value) => value > 0)
        ? findRoot(worthAt, guess)
        : FormulaError.number;
    },
  ),
  define(
    { name: 'SLN', says: 'what is written off in each period, in equal parts' },
    [number('cost'), number('salvage'), number('life')],
    ([cost, salvage, life]) => (life === 0 ? FormulaError.divideByZero : finite((cost - salvage) / life)),
  ),
  define(
    { name: 'SYD', says: "what is written off in one period, by the sum of the years' digits" },
    [number('cost'), number('salvage'), number('life'), number('period')],
    ([cost, salvage, life, period]) =>
      life <= 0 || period < 1 || period > life
        ? FormulaError.number
        : finite(((cost - salvage) * (life - period + 1) * 2) / (life * (life + 1))),
  ),
  define(
    { name: 'DDB', says: 'what is written off in one period, by a falling balance' },
    [number('cost'), number('salvage'), number('life'), integer('period'), optional(number('factor'), 2)],
    ([cost, salvage, life, period, factor], place) => {
      if (cost < 0 || salvage < 0 || life <= 0 || period < 1 || period > life || period > MAX_PERIODS || factor <= 0)
        return FormulaError.number;
      spend(place, period);
      return finite(decline(cost, salvage, { life, period, factor }));
    },
  ),
];
