import { partsOf } from '../values/dates/calendar';
import { itemAt, lastItem } from '../values/item-at';
import { isFormulaInput } from '../values/is-formula-input';
import { isoFromSerial } from '../values/dates/date-serial';
import { numberText } from '../values/number-text';
import { readInput } from '../values/read-input';

/** Characters of a text that is counted on. */
const MAX_COUNTED = 1000;

/**
 * How a run of inputs goes on: what the next one, and the one after it, would hold (counted from 0). Numbers and dates
 * at equal distances go on at that distance, a lone date day by day, months by months; a text that ends in a number
 * counts on; everything else is repeated in turn.
 */
export function seriesFrom(inputs: readonly string[]): (step: number) => string {
  const repeated = (step: number): string => inputs[step % inputs.length] ?? '';
  if (inputs.some(isFormulaInput)) return repeated;
  const values = inputs.map((input) => readInput(input, {}).value);
  if (values.every((value) => value.kind === 'number')) {
    const by = stepOf(values.map(({ number }) => number));
    const last = lastItem(values).number;
    return by === undefined ? repeated : (step) => numberText(Number((last + by * (step + 1)).toPrecision(15)));
  }
  if (values.every((value) => value.kind === 'date')) return dates(values.map(({ serial }) => serial)) ?? repeated;
  const counted = inputs.flatMap((input) => readCounted(input) ?? []);
  const before = counted[0]?.before ?? '';
  if (
    values.every((value) => value.kind === 'text') &&
    counted.length === inputs.length &&
    counted.every((one) => one.before === before)
  ) {
    const numbers = counted.map(({ digits }) => Number(digits));
    const by = inputs.length === 1 ? 1 : stepOf(numbers);
    const { digits } = lastItem(counted);
    return by === undefined
      ? repeated
      : (step) => {
          const next = lastItem(numbers) + by * (step + 1);
          return next < 0
            ? repeated(step)
            : before + String(next).padStart(digits.startsWith('0') ? digits.length : 1, '0');
        };
  }
  return repeated;
}

/** A text that ends in a number, in its two parts; spaces after the number are left away. */
function readCounted(input: string): { readonly before: string; readonly digits: string } | undefined {
  const match = input.length > MAX_COUNTED ? null : /^(?<before>.*?)(?<digits>\d+)\s*$/u.exec(input);
  const { before, digits } = match?.groups ?? {};
  return before === undefined || digits === undefined ? undefined : { before, digits };
}

/** The distance that all neighbours have; undefined where there is none. */
function stepOf(numbers: readonly number[]): number | undefined {
  if (numbers.length < 2) return undefined;
  const by = itemAt(numbers, 1) - itemAt(numbers, 0);
  const isEven = numbers.every(
    (number, at) => at === 0 || Math.abs(number - itemAt(numbers, at - 1) - by) <= 1e-9 * Math.max(1, Math.abs(by)),
  );
  return isEven ? by : undefined;
}

function dates(serials: readonly number[]): ((step: number) => string) | undefined {
  const last = lastItem(serials);
  const months = monthStep(serials);
  if (months !== undefined) return (step) => addMonths(last, months * (step + 1));
  const by = serials.length === 1 ? 1 : stepOf(serials);
  return by === undefined ? undefined : (step) => isoFromSerial(last + by * (step + 1));
}

/** Months between dates that fall on one day of the month. */
function monthStep(serials: readonly number[]): number | undefined {
  if (serials.length < 2) return undefined;
  const parts = serials.map(partsOf);
  if (parts.some(({ day }) => day !== parts[0]?.day)) return undefined;
  const by = stepOf(parts.map(({ year, month }) => year * 12 + month));
  return by === 0 ? undefined : by;
}

function addMonths(serial: number, months: number): string {
  const { year, month, day } = partsOf(serial);
  const count = year * 12 + month - 1 + months;
  const last = new Date(Date.UTC(Math.floor(count / 12), (count % 12) + 1, 0)).getUTCDate();
  return [
    String(Math.floor(count / 12)).padStart(4, '0'),
    String((count % 12) + 1).padStart(2, '0'),
    String(Math.min(day, last)).padStart(2, '0'),
  ].join('-');
}
