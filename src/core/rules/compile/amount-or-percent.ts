import { readInput } from '../../values/read-input';
import { lazySchema } from '../../lazy-schema';

/** A plain amount, or a share of something such as "10%". */
export type AmountOrPercent = number | string;

const PERCENT = /^\d+(?:\.\d+)?\s*%$/;

export const amountOrPercentSchema = lazySchema<AmountOrPercent>(
  (joi) => joi.alternatives().try(joi.number().strict().min(0), joi.string().pattern(PERCENT)),
  'a number of 0 or more, or a percentage such as "10%"',
);

/**
 * The amount, where a percentage is taken of the size of `base`. The text moves its decimal point, so that 12.3% is the
 * double nearest to 0.123.
 */
export const amountOf = (given: AmountOrPercent, base: number): number =>
  typeof given === 'number' ? given : Math.abs(base) * Number(`${given.replace('%', '').trim()}e-2`);

/** Reads an amount as it is typed: "5", "0.2" or "10%". Undefined where it is neither, or below 0. */
export function readAmount(text: string): AmountOrPercent | undefined {
  const trimmed = text.trim();
  if (PERCENT.test(trimmed)) return trimmed;
  const { value } = readInput(trimmed);
  return value.kind === 'number' && value.number >= 0 && !trimmed.endsWith('%') ? value.number : undefined;
}
