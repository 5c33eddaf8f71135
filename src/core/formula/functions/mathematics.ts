// Mathematical and rounding functions (ISO/IEC 26300-4, 6.16 and 6.17).
import { itemAt } from '../../values/item-at';
import { finite, FormulaError, settled, type Operand } from '../values/formula-value';
import { allNumbers, define, integer, matrix, number, optional, several } from './function-spec';

/** A function of one number whose result engines may compute differently in the last bit. */
const circular = (name: string, says: string, compute: (x: number) => number) =>
  define({ name, says }, [number('number')], ([x]) => finite(settled(compute(x))));

const exact = (name: string, says: string, compute: (x: number) => number) =>
  define({ name, says }, [number('number')], ([x]) => finite(compute(x)));

/**
 * Rounds at a decimal place. The shift is made on the decimal text, so that 2.675 is not taken for the double just
 * below it.
 */
function roundAt(value: number, digits: number, round: (size: number) => number): number {
  const size = Math.abs(value);
  const shifted = shift(Number(size.toPrecision(15)), digits);
  if (!Number.isFinite(shifted)) return value;
  return Math.sign(value) * shift(round(shifted), -digits);
}

/** The number times ten to a power, by its decimal text. */
function shift(value: number, places: number): number {
  const [digits, exponent = '0'] = String(value).split('e');
  return Number(`${digits}e${Number(exponent) + places}`);
}

const rounding = (name: string, says: string, round: (size: number) => number) =>
  define({ name, says }, [number('number'), optional(integer('digits'), 0)], ([x, digits]) =>
    finite(roundAt(x, digits, round)),
  );

/** Multiples towards one side: the quotient is settled first, so that 0.3 is three times 0.1. */
const toMultiple = (name: string, says: string, round: (quotient: number) => number) =>
  define({ name, says }, [number('number'), optional(number('multiple'), 1)], ([x, multiple]) => {
    if (x === 0 || multiple === 0) return 0;
    if (x > 0 && multiple < 0) return FormulaError.number;
    const size = Math.abs(multiple);
    return settled(round(settled(x / size)) * size);
  });

/** A number raised to a power: `0^0` is 1, a negative number to a fraction `#NUM!`. */
export function power(base: number, exponent: number): number | FormulaError {
  if (base === 0 && exponent < 0) return FormulaError.divideByZero;
  if (exponent === 2) return finite(base * base);
  return finite(settled(base ** exponent));
}

function modulo(x: number, divisor: number): number | FormulaError {
  if (divisor === 0) return FormulaError.divideByZero;
  const rest = x % divisor;
  return rest !== 0 && rest < 0 !== divisor < 0 ? rest + divisor : rest;
}

function factorial(n: number): number | FormulaError {
  if (n < 0 || n > 170) return FormulaError.number;
  let product = 1;
  for (let factor = 2; factor <= n; factor++) product *= factor;
  return product;
}

/** The next even (or odd) whole number away from zero. */
function awayToParity(x: number, parity: 0 | 1): number {
  const up = Math.ceil(Math.abs(x));
  const size = up % 2 === parity ? up : up + 1;
  return (x < 0 ? -1 : 1) * size;
}

export const MATHEMATICS = [
  exact('ABS', 'the number without its sign', Math.abs),
  circular('ACOS', 'the angle, in radians, with this cosine', Math.acos),
  circular('ASIN', 'the angle, in radians, with this sine', Math.asin),
  circular('ATAN', 'the angle, in radians, with this tangent', Math.atan),
  define({ name: 'ATAN2', says: 'the angle, in radians, of the point x, y' }, [number('x'), number('y')], ([x, y]) =>
    x === 0 && y === 0 ? FormulaError.divideByZero : settled(Math.atan2(y, x)),
  ),
  circular('COS', 'the cosine of an angle in radians', Math.cos),
  circular('DEGREES', 'an angle in degrees, given in radians', (x) => (x * 180) / Math.PI),
  exact('EVEN', 'the next even number away from zero', (x) => awayToParity(x, 0)),
  circular('EXP', 'e to the power of a number', Math.exp),
  define({ name: 'FACT', says: 'the factorial of a whole number' }, [integer('number')], ([n]) => factorial(n)),
  exact('INT', 'the whole number at or below a number', Math.floor),
  define({ name: 'LN', says: 'the natural logarithm' }, [number('number')], ([x]) =>
    x > 0 ? settled(Math.log(x)) : FormulaError.number,
  ),
  define(
    { name: 'LOG', says: 'the logarithm to a base' },
    [number('number'), optional(number('base'), 10)],
    ([x, base]) =>
      x <= 0 || base <= 0
        ? FormulaError.number
        : base === 1
          ? FormulaError.divideByZero
          : finite(settled(Math.log(x) / Math.log(base))),
  ),
  define({ name: 'LOG10', says: 'the logarithm to base 10' }, [number('number')], ([x]) =>
    x > 0 ? settled(Math.log10(x)) : FormulaError.number,
  ),
  define(
    { name: 'MOD', says: 'what is left after a division, with the sign of the divisor' },
    [number('number'), number('divisor')],
    ([x, divisor]) => modulo(x, divisor),
  ),
  exact('ODD', 'the next odd number away from zero', (x) => awayToParity(x, 1)),
  define({ name: 'PI', says: 'the number pi' }, [], () => Math.PI),
  define(
    { name: 'POWER', says: 'a number raised to a power' },
    [number('base'), number('exponent')],
    ([base, exponent]) => power(base, exponent),
  ),
  define({ name: 'PRODUCT', says: 'the product of all numbers' }, [allNumbers()], ([lists]) => {
    const all = lists.flat();
    return finite(all.reduce((product, x) => product * x, all.length ? 1 : 0));
  }),
  circular('RADIANS', 'an angle in radians, given in degrees', (x) => (x * Math.PI) / 180),
  circular('SIN', 'the sine of an angle in radians', Math.sin),
  define({ name: 'SQRT', says: 'the square root' }, [number('number')], ([x]) =>
    x < 0 ? FormulaError.number : Math.sqrt(x),
  ),
  circular('TAN', 'the tangent of an angle in radians', Math.tan),
  rounding('ROUND', 'the number rounded to so many decimals, halves away from zero', (size) => Math.floor(size + 0.5)),
  rounding('ROUNDDOWN', 'the number rounded towards zero', Math.floor),
  rounding('ROUNDUP', 'the number rounded away from zero', Math.ceil),
  rounding('TRUNC', 'the number cut off after so many decimals', Math.floor),
  toMultiple('CEILING', 'the multiple at or above a number', Math.ceil),
  toMultiple('FLOOR', 'the multiple at or below a number', Math.floor),
  define(
    { name: 'SUMPRODUCT', says: 'the sum of the products of values that stand at the same place' },
    [several(matrix('array'))],
    ([arrays]): Operand => {
      const first = itemAt(arrays, 0);
      if (arrays.some(({ rows, columns }) => rows !== first.rows || columns !== first.columns))
        return FormulaError.value;
      let sum = 0;
      for (let at = 0; at < first.values.length; at++) {
        let product = 1;
        for (const { values } of arrays) {
          const value = values[at]!;
          if (value instanceof FormulaError) return value;
          product *=
            typeof value === 'number'
              ? value
              : typeof value === 'boolean' && arrays.length === 1
                ? Number(value)
                : serialOr0(value);
        }
        sum += product;
      }
      return finite(sum);
    },
  ),
];

const serialOr0 = (value: unknown): number =>
  typeof value === 'object' && value !== null && 'serial' in value ? (value as { serial: number }).serial : 0;
