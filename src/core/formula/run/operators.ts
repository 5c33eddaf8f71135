import { compareScalars, FormulaError, SerialDate, toNumber, type Scalar } from '../values/formula-value';

/** An operator between two values. */
export type Dyadic = (left: Scalar, right: Scalar) => Scalar;

/**
 * An operator between two numbers. With `dates`, a date plus or minus a number is a date; between two dates it is a
 * number.
 */
export function arithmetic(compute: (a: number, b: number) => number | FormulaError, dates?: 'dates'): Dyadic {
  return (left, right) => {
    const a = toNumber(left);
    if (typeof a !== 'number') return a;
    const b = toNumber(right);
    if (typeof b !== 'number') return b;
    const result = compute(a, b);
    const isDate = dates !== undefined && left instanceof SerialDate !== right instanceof SerialDate;
    return isDate && typeof result === 'number' ? new SerialDate(result) : result;
  };
}

/** A comparison; an error on either side is the result. */
export function compared(holds: (order: number) => boolean): Dyadic {
  return (left, right) => {
    if (left instanceof FormulaError) return left;
    if (right instanceof FormulaError) return right;
    return holds(compareScalars(left, right));
  };
}
