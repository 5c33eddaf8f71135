// Statistical functions (ISO/IEC 26300-4, 6.18), and the counts and sums under conditions (6.13, 6.16).
import { itemAt } from '../../values/item-at';
import { ExactSum } from '../../stats/exact-sum';
import { Moments } from '../../stats/moments';
import { quantileOfSorted } from '../../stats/quantile';
import { readCriterion } from '../values/criterion';
import {
  Area,
  AreaList,
  finite,
  FormulaError,
  SerialDate,
  toNumber,
  type Operand,
  type Scalar,
} from '../values/formula-value';
import { spend, spendText, type EvalCursor } from '../values/place';
import { forEachValue, readAt, toScalar } from '../values/read-cells';
import {
  allNumbers,
  anything,
  area,
  define,
  integer,
  matrix,
  number,
  numbers,
  optional,
  scalar,
  several,
} from './function-spec';

/** The sum to the last bit, whatever the order. */
export function sumOf(values: readonly number[]): number {
  const sum = new ExactSum();
  for (const value of values) {
    if (Math.abs(value) > 1e300) return values.reduce((total, x) => total + x, 0);
    sum.add(value);
  }
  return sum.rounded();
}

const meanOf = (values: readonly number[]): number | FormulaError =>
  values.length ? finite(sumOf(values) / values.length) : FormulaError.divideByZero;

/** Standard deviation or its square. */
export function spreadOf(values: readonly number[], spread: 'sample' | 'population'): number | FormulaError {
  const moments = new Moments('deviation');
  for (const value of values) moments.add(value);
  if (moments.count < (spread === 'sample' ? 2 : 1)) return FormulaError.divideByZero;
  return finite(moments.deviation(spread));
}

const over = (
  name: string,
  says: string,
  compute: (values: readonly number[], place: EvalCursor) => number | FormulaError,
) =>
  define({ name, says }, [allNumbers()], ([lists], place) =>
    compute(lists.length === 1 ? itemAt(lists, 0) : lists.flat(), place),
  );

const squared = (value: number | FormulaError): number | FormulaError =>
  typeof value === 'number' ? finite(value * value) : value;

function variance(values: readonly number[], spread: 'sample' | 'population'): number | FormulaError {
  return squared(spreadOf(values, spread));
}

export const least = (values: readonly number[]): number =>
  values.reduce((a, b) => Math.min(a, b), values.length ? Infinity : 0);
export const greatest = (values: readonly number[]): number =>
  values.reduce((a, b) => Math.max(a, b), values.length ? -Infinity : 0);

const rising = (a: number, b: number): number => a - b;

/** The numbers in order; putting them there costs more than reading them. */
function ordered(values: readonly number[], place: EvalCursor, order: (a: number, b: number) => number): number[] {
  spend(place, Math.ceil((values.length * Math.log2(values.length + 1)) / 4));
  return [...values].sort(order);
}

function mode(values: readonly number[]): number | FormulaError {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  const most = greatest([...counts.values()]);
  return most < 2 ? FormulaError.na : least([...counts].flatMap(([value, count]) => (count === most ? value : [])));
}

function quantile(values: readonly number[], p: number, place: EvalCursor): number | FormulaError {
  return values.length === 0 || p < 0 || p > 1
    ? FormulaError.number
    : quantileOfSorted(ordered(values, place, rising), p);
}

const nth = (name: string, says: string, order: (a: number, b: number) => number) =>
  define({ name, says }, [numbers('numbers'), number('n')], ([values, n], place) => {
    const at = Math.ceil(n);
    return at < 1 || at > values.length ? FormulaError.number : itemAt(ordered(values, place, order), at - 1);
  });

/** Counts of one kind of value: numbers given directly count as well, and so does text that reads as one. */
function countNumbers(operands: readonly { readonly operand: Operand }[], place: EvalCursor): number | FormulaError {
  let count = 0;
  for (const { operand } of operands) {
    const isDirect = !(
      operand instanceof Area ||
      operand instanceof AreaList ||
      (typeof operand === 'object' && operand !== null && 'values' in operand)
    );
    const error = forEachValue(operand, place, (value) => {
      if (typeof value === 'number' || value instanceof SerialDate) count++;
      else if (isDirect && value !== null && typeof toNumber(value) === 'number') count++;
    });
    if (error) return error;
  }
  return count;
}

function countFilled(operands: readonly { readonly operand: Operand }[], place: EvalCursor): number | FormulaError {
  let count = 0;
  for (const { operand } of operands) {
    const error = forEachValue(operand, place, (value) => {
      if (value !== null) count++;
    });
    if (error) return error;
  }
  return count;
}

/** Which cells of areas of one shape meet every criterion: calls `visit` with their row and column. */
function forEachMeeting(
  pairs: readonly { readonly operand: Operand }[],
  place: EvalCursor,
  visit: (row: number, column: number) => void,
): FormulaError | undefined {
  const tests: { cells: Area; test: (value: Scalar) => boolean }[] = [];
  for (let at = 0; at < pairs.length; at += 2) {
    const cells = itemAt(pairs, at).operand;
    const given = pairs[at + 1]?.operand;
    if (!(cells instanceof Area) || given === undefined)
      return cells instanceof FormulaError ? cells : FormulaError.value;
    tests.push({ cells, test: readCriterion(toScalar(given, place)) });
  }
  const shape = itemAt(tests, 0).cells;
  if (tests.some(({ cells }) => cells.rows !== shape.rows || cells.columns !== shape.columns))
    return FormulaError.value;
  spend(place, shape.rows * shape.columns * tests.length);
  const meets = ({ cells, test }: (typeof tests)[number], row: number, column: number): boolean => {
    const value = readAt(cells, row, column);
    spendText(place, value);
    return test(value);
  };
  for (let row = 0; row < shape.rows; row++)
    for (let column = 0; column < shape.columns; column++)
      if (tests.every((test) => meets(test, row, column))) visit(row, column);
  return undefined;
}

/** The numbers of an area whose criteria hold; an error among them is the result. */
function numbersMeeting(
  cells: Area,
  pairs: readonly { readonly operand: Operand }[],
  place: EvalCursor,
): readonly number[] | FormulaError {
  const found: number[] = [];
  let wrong: FormulaError | undefined;
  const error = forEachMeeting(pairs, place, (row, column) => {
    const value = readAt(cells, row, column);
    if (value instanceof FormulaError) wrong ??= value;
    else if (typeof value === 'number') found.push(value);
    else if (value instanceof SerialDate) found.push(value.serial);
  });
  return error ?? wrong ?? found;
}

/** SUMIF and AVERAGEIF: what is added may stand elsewhere, from its first cell on in the shape of the cells tested. */
const underCondition = (name: string, says: string, compute: (values: readonly number[]) => number | FormulaError) =>
  define(
    { name, says },
    [area('cells'), anything('criterion'), optional(anything('added'), { operand: null })],
    ([cells, criterion, added], place) => {
      const from = added.operand instanceof Area ? added.operand : cells;
      const values = numbersMeeting(from, [{ operand: cells }, criterion], place);
      return values instanceof FormulaError ? values : compute(values);
    },
  );

const underConditions = (name: string, says: string, compute: (values: readonly number[]) => number | FormulaError) =>
  define({ name, says }, [area('cells'), several(anything('cells; criterion'))], ([cells, pairs], place) => {
    const first = pairs[0]?.operand;
    if (first instanceof Area && (first.rows !== cells.rows || first.columns !== cells.columns))
      return FormulaError.value;
    const values = numbersMeeting(cells, pairs, place);
    return values instanceof FormulaError ? values : compute(values);
  });

/** Pairs of numbers that stand at the same place of two arrays; pairs with a gap are dropped. */
function pairsOf(
  one: { readonly values: readonly Scalar[] },
  other: { readonly values: readonly Scalar[] },
): readonly [number, number][] | FormulaError {
  if (one.values.length !== other.values.length) return FormulaError.na;
  const pairs: [number, number][] = [];
  for (const [at, x] of one.values.entries()) {
    const y = itemAt(other.values, at);
    if (x instanceof FormulaError) return x;
    if (y instanceof FormulaError) return y;
    const [a, b] = [x instanceof SerialDate ? x.serial : x, y instanceof SerialDate ? y.serial : y];
    if (typeof a === 'number' && typeof b === 'number') pairs.push([a, b]);
  }
  return pairs;
}

interface Regression {
  readonly meanX: number;
  readonly meanY: number;
  /** Sums of products of the distances from the means. */
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
}

const regression = (name: string, says: string, compute: (of: Regression) => number | FormulaError) =>
  define({ name, says }, [matrix('y'), matrix('x')], ([ys, xs]) => {
    const pairs = pairsOf(xs, ys);
    if (pairs instanceof FormulaError) return pairs;
    if (pairs.length < 2) return FormulaError.divideByZero;
    const meanX = sumOf(pairs.map(([x]) => x)) / pairs.length;
    const meanY = sumOf(pairs.map(([, y]) => y)) / pairs.length;
    const sum = (of: (x: number, y: number) => number) => sumOf(pairs.map(([x, y]) => of(x - meanX, y - meanY)));
    return compute({ meanX, meanY, xx: sum((x) => x * x), xy: sum((x, y) => x * y), yy: sum((_, y) => y * y) });
  });

const divided = (value: number, by: number): number | FormulaError =>
  by === 0 ? FormulaError.divideByZero : finite(value / by);

export const STATISTICS = [
  over('SUM', 'the sum of all numbers', (values) => finite(sumOf(values))),
  over('AVERAGE', 'the arithmetic mean', meanOf),
  over('MIN', 'the least number', least),
  over('MAX', 'the greatest number', greatest),
  over('MEDIAN', 'the middle number, or the mean of the middle two', (values, place) => quantile(values, 0.5, place)),
  over('MODE', 'the number that is met most often', mode),
  over('STDEV', 'the sample standard deviation', (values) => spreadOf(values, 'sample')),
  over('STDEVP', 'the population standard deviation', (values) => spreadOf(values, 'population')),
  over('VAR', 'the sample variance', (values) => variance(values, 'sample')),
  over('VARP', 'the population variance', (values) => variance(values, 'population')),
  define({ name: 'COUNT', says: 'how many numbers there are' }, [several(anything('values'))], ([operands], place) =>
    countNumbers(operands, place),
  ),
  define(
    { name: 'COUNTA', says: 'how many values that are not blank there are' },
    [several(anything('values'))],
    ([operands], place) => countFilled(operands, place),
  ),
  define({ name: 'COUNTBLANK', says: 'how many cells are blank' }, [anything('cells')], ([{ operand }], place) => {
    let count = 0;
    const error = forEachValue(operand, place, (value) => {
      if (value === null || value === '') count++;
    });
    if (error || !(operand instanceof Area)) return error ?? count;
    // Cells beyond the sheet are blank too.
    const rows = Math.min(operand.bottom, operand.sheet.order.length - 1) - operand.top + 1;
    const columns = Math.min(operand.right, operand.sheet.columns.length - 1) - operand.left + 1;
    return count + operand.rows * operand.columns - Math.max(0, rows) * Math.max(0, columns);
  }),
  define(
    { name: 'COUNTIF', says: 'how many cells meet a criterion' },
    [area('cells'), anything('criterion')],
    ([cells, criterion], place) => {
      let count = 0;
      return forEachMeeting([{ operand: cells }, criterion], place, () => void count++) ?? count;
    },
  ),
  define(
    { name: 'COUNTIFS', says: 'how many places meet all criteria' },
    [several(anything('cells; criterion'))],
    ([pairs], place) => {
      let count = 0;
      return forEachMeeting(pairs, place, () => void count++) ?? count;
    },
  ),
  underCondition('SUMIF', 'the sum of the numbers where a criterion is met', (values) => finite(sumOf(values))),
  underCondition('AVERAGEIF', 'the mean of the numbers where a criterion is met', meanOf),
  underConditions('SUMIFS', 'the sum of the numbers where all criteria are met', (values) => finite(sumOf(values))),
  underConditions('AVERAGEIFS', 'the mean of the numbers where all criteria are met', meanOf),
  define(
    { name: 'PERCENTILE', says: 'the value below which this share of the numbers lies' },
    [numbers('numbers'), number('share')],
    ([values, p], place) => quantile(values, p, place),
  ),
  define(
    { name: 'QUARTILE', says: 'a quartile: 0 the least, 2 the median, 4 the greatest' },
    [numbers('numbers'), integer('quarter')],
    ([values, quarter], place) => quantile(values, quarter / 4, place),
  ),
  nth('LARGE', 'the n-th greatest number', (a, b) => b - a),
  nth('SMALL', 'the n-th least number', (a, b) => a - b),
  define(
    { name: 'RANK', says: 'the rank of a number among others, 1 for the greatest' },
    [number('number'), numbers('numbers'), optional(scalar('rising'), null)],
    ([wanted, values, order]) => {
      if (!values.includes(wanted)) return FormulaError.na;
      const isRising = typeof toNumber(order) === 'number' && toNumber(order) !== 0;
      return 1 + values.filter((value) => (isRising ? value < wanted : value > wanted)).length;
    },
  ),
  regression('CORREL', 'how closely two series follow a line together, -1 to 1', ({ xx, xy, yy }) =>
    divided(xy, Math.sqrt(xx) * Math.sqrt(yy)),
  ),
  regression('SLOPE', 'the slope of the line of best fit', ({ xx, xy }) => divided(xy, xx)),
  regression('INTERCEPT', 'where the line of best fit meets x = 0', ({ meanX, meanY, xx, xy }) => {
    const slope = divided(xy, xx);
    return typeof slope === 'number' ? finite(meanY - slope * meanX) : slope;
  }),
];
