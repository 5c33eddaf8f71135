import { readNumber } from '../values/read-number';
import { readDate } from '../values/read-date';
import { foldCase } from '../values/fold-text';
import { compareTexts, FormulaError, SerialDate, type Scalar } from './formula-value';

/** A test of one value. */
export type Criterion = (value: Scalar) => boolean;

const OPERATOR = /^(<=|>=|<>|=|<|>)?([\s\S]*)$/;

/**
 * What a criterion of COUNTIF, SUMIF and their like means: a value that is equal, or text that begins with a comparison.
 * Text matches the whole cell, case aside, with `*`, `?` and `~` as wildcards (common practice).
 */
export function readCriterion(given: Scalar): Criterion {
  if (given instanceof FormulaError) return (value) => value === given;
  if (given === null) return (value) => value === 0;
  if (typeof given !== 'string') return equalTo(given);
  const [, operator = '=', rest] = OPERATOR.exec(given)!;
  const wanted = readWanted(rest!);
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
  const steps = wildcardSteps(foldCase(pattern));
  return (value) => typeof value === 'string' && matchSteps(Array.from(foldCase(value)), steps, 'whole') >= 0;
}

/** Where the pattern is first met in a text, in code points from 0 at or after `from`; -1 where it is nowhere. */
export function findPattern(text: string, pattern: string, from: number): number {
  const points = Array.from(foldCase(text));
  const steps = wildcardSteps(foldCase(pattern));
  for (let at = from; at <= points.length; at++) if (matchSteps(points.slice(at), steps, 'start') >= 0) return at;
  return -1;
}

type Step = { readonly letter: string } | 'any-letter' | 'any-run';

function wildcardSteps(pattern: string): Step[] {
  const steps: Step[] = [];
  const points = Array.from(pattern);
  for (let at = 0; at < points.length; at++) {
    const point = points[at]!;
    const next = points[at + 1];
    if (point === '~' && (next === '*' || next === '?' || next === '~')) steps.push({ letter: points[++at]! });
    else if (point === '*') steps.push('any-run');
    else steps.push(point === '?' ? 'any-letter' : { letter: point });
  }
  return steps;
}

/** Letters taken by the steps, or -1. Going back only to the last run keeps it within letters times steps. */
function matchSteps(letters: readonly string[], steps: readonly Step[], extent: 'whole' | 'start'): number {
  let at = 0;
  let step = 0;
  let runStep = -1;
  let runAt = 0;
  for (;;) {
    const wanted = steps[step];
    if (wanted === undefined && (extent === 'start' || at === letters.length)) return at;
    if (wanted === 'any-run') {
      runStep = step++;
      runAt = at;
    } else if (wanted !== undefined && at < letters.length && (wanted === 'any-letter' || wanted.letter === letters[at])) {
      at++;
      step++;
    } else if (runStep >= 0 && runAt < letters.length) {
      step = runStep + 1;
      at = ++runAt;
    } else return -1;
  }
}
