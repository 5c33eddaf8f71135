import { readNumber } from '../../values/read-number';
import { readDate } from '../../values/dates/read-date';
import { readWildcards } from './wildcards';
import { compareTexts, FormulaError, SerialDate, type Scalar } from './formula-value';

/** A test of one value. */
export type Criterion = (value: Scalar) => boolean;

const OPERATOR = /^(<=|>=|<>|=|<|>)?([\s\S]*)$/;

/**
 * A criterion of COUNTIF, SUMIF and similar functions: a value to be equal to, or text that begins with a comparison.
 * Text matches the whole cell, case aside, with `*`, `?` and `~` as wildcards (common practice).
 */
export function readCriterion(given: Scalar): Criterion {
  if (given instanceof FormulaError) return (value) => value === given;
  if (given === null) return (value) => value === 0;
  if (typeof given !== 'string') return equalTo(given);
  const [, operator = '=', rest = ''] = OPERATOR.exec(given) ?? [];
  const wanted = readWanted(rest);
  if (operator === '=' || operator === '<>') {
    const equal = rest === '' ? isBlank(given) : typeof wanted === 'string' ? matches(wanted) : equalTo(wanted);
    return operator === '=' ? equal : (value) => !equal(value);
  }
  return (value) => {
    const order = orderOf(value, wanted);
    if (order === undefined) return false;
    return operator === '<' ? order < 0 : operator === '<=' ? order <= 0 : operator === '>' ? order > 0 : order >= 0;
  };
}

/** "=" matches cells without content; an empty criterion also the empty text that a formula gave. */
const isBlank =
  (given: string): Criterion =>
  (value) =>
    value === null || (value === '' && given === '');

function readWanted(text: string): number | string | boolean {
  const serial = readDate(text);
  if (serial !== undefined) return serial;
  const upper = text.toUpperCase();
  return readNumber(text.trim())?.number ?? (upper === 'TRUE' ? true : upper === 'FALSE' ? false : text);
}

function equalTo(wanted: number | boolean | SerialDate): Criterion {
  const plain = wanted instanceof SerialDate ? wanted.serial : wanted;
  return (value) => (value instanceof SerialDate ? value.serial : value) === plain;
}

function orderOf(value: Scalar, wanted: number | string | boolean): number | undefined {
  const plain = value instanceof SerialDate ? value.serial : value;
  if (typeof plain !== typeof wanted) return undefined;
  return typeof plain === 'string' ? compareTexts(plain, wanted as string) : Number(plain) - Number(wanted);
}

/** True for texts that are the pattern as a whole. */
export function matches(pattern: string): Criterion {
  const wildcards = readWildcards(pattern);
  return (value) => typeof value === 'string' && wildcards.matches(value);
}
