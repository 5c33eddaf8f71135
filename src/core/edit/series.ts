import { isFormulaInput } from '../values/is-formula-input';
import { isoFromSerial } from '../values/date-serial';
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
    const last = values.at(-1)!.number;
    return by === undefined ? repeated : (step) => numberText(Number((last + by * (step + 1)).toPrecision(15)));
  }
  if (values.every((value) => value.kind === 'date')) return dates(values.map(({ serial }) => serial)) ?? repeated;
  const counted = inputs.map((input) => (input.length > MAX_COUNTED ? null : /^(.*?)(\d+)(\s*)$/u.exec(input)));
  if (
    values.every((value) => value.kind === 'text') &&
    counted.every((match) => match !== null && match[1] === counted[0]![1])
  ) {
    const numbers = counted.map((match) => Number(match![2]));
    const by = inputs.length === 1 ? 1 : stepOf(numbers);
    const [, before = '', digits = ''] = counted.at(-1)!;
    return by === undefined
      ? repeated
      : (step) => {
          const next = numbers.at(-1)! + by * (step + 1);
          return next < 0
            ? repeated(step)
            : before + String(next).padStart(digits.startsWith('0') ? digits.length : 1, '0');
        };
  }
  return repeated;
}

/** The distance that all neighbours have; undefined where there is none. */
function stepOf(numbers: readonly number[]): number | undefined {
  if (numbers.length < 2) return undefined;
  const by = numbers[1]! - numbers[0]!;
  const isEven = numbers.every(
    (number, at) => at === 0 || Math.abs(number - numbers[at - 1]! - by) <= 1e-9 * Math.max(1, Math.abs(by)),
  );
  return isEven ? by : undefined;
}

function dates(serials: readonly number[]): ((step: number) => string) | undefined {
  const last = serials.at(-1)!;
  const months = monthStep(serials);
  if (months !== undefined) return (step) => addMonths(last, months * (step + 1));
  const by = serials.length === 1 ? 1 : stepOf(serials);
  return by === undefined ? undefined : (step) => isoFromSerial(last + by * (step + 1));
}

/** Months between dates that fall on one day of the month. */
function monthStep(serials: readonly number[]): number | undefined {
  if (serials.length < 2) return undefined;
  const parts = serials.map((serial) => isoFromSerial(serial).split('-').map(Number) as [number, number, number]);
  if (parts.some(([, , day]) => day !== parts[0]![2])) return undefined;
  const by = stepOf(parts.map(([year, month]) => year * 12 + month));
  return by === 0 ? undefined : by;
}

function addMonths(serial: number, months: number): string {
  const [year, month, day] = isoFromSerial(serial).split('-').map(Number) as [number, number, number];
  const count = year * 12 + month - 1 + months;
  const last = new Date(Date.UTC(Math.floor(count / 12), (count % 12) + 1, 0)).getUTCDate();
  return [
    String(Math.floor(count / 12)).padStart(4, '0'),
    String((count % 12) + 1).padStart(2, '0'),
    String(Math.min(day, last)).padStart(2, '0'),
  ].join('-');
}
