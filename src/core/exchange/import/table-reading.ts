import { withoutGroups } from '../../values/decimal-comma';
import { counted, inDigits } from '../../values/counted';
import type { DateOrder } from '../../values/dates/read-date';
import { readDate } from '../../values/dates/read-date';
import { valueInput } from '../../values/value-input';
import type { Decimal } from '../../values/decimal-comma';
import { FieldFacts } from './field-facts';

/**
 * How the cells of one column are read: each for what it says, with decimals as in the rest of the file or with a sign
 * of the column's own; as the text that it is; or not at all.
 */
export type ReadAs = 'values' | 'comma' | 'point' | 'text' | 'nothing';

const OWN_DECIMAL = { comma: ',', point: '.' } as const;

/** The sign before the decimals of one column. */
export const decimalOf = (decimal: Decimal, as: ReadAs): Decimal =>
  as === 'comma' || as === 'point' ? OWN_DECIMAL[as] : decimal;

/** How the texts of a file are read as cells. */
export interface TableReading {
  /** Before decimals, but in columns that are read with a sign of their own. */
  readonly decimal: Decimal;
  /** The order of day and month in dates such as 8/3/2026; null leaves these as text. */
  readonly dates: DateOrder | null;
  /** Whether what begins with = is a formula. */
  readonly formulas: boolean;
  /** The row of labels, counted from 0; null where there is none. Rows above it become titles. */
  readonly header: number | null;
  /** By column. */
  readonly as: readonly ReadAs[];
}

/** What the cells of one column are. */
export interface FieldDescription {
  /** The kind of its cells, in a word or two. */
  readonly kind: string;
  /** How many are so, and what the others are. */
  readonly why: string;
}

/** The reading of a file that follows from the facts of all columns. */
export function guessReading(
  facts: readonly FieldFacts[],
  header: number | null,
): { readonly reading: TableReading; readonly why: ReadingWhy } {
  const total = (of: (facts: FieldFacts) => number) => facts.reduce((sum, each) => sum + of(each), 0);
  const commas = total((each) => each.commaNumbers);
  const points = total((each) => each.pointNumbers);
  const dayFirst = total((each) => each.dayFirst);
  const monthFirst = total((each) => each.monthFirst);
  const either = total((each) => each.eitherOrder);
  const formulas = total((each) => each.formulas);
  const decimal = commas > points ? ',' : '.';
  const reading: TableReading = {
    decimal,
    dates: dayFirst + monthFirst + either === 0 ? null : monthFirst > dayFirst ? 'mdy' : 'dmy',
    formulas: true,
    header,
    as: facts.map((each) => guessAs(each, decimal)),
  };
  return {
    reading,
    why: {
      decimal:
        commas || points
          ? `${counted(commas, 'number')} with a decimal comma, ${points} with a decimal point`
          : 'no number with decimals was found',
      dates: datesWhy({ dayFirst, monthFirst, either }),
      formulas: formulas ? `${counted(formulas, 'cell')} begin with =` : 'no cell begins with =',
    },
  };
}

export interface ReadingWhy {
  readonly decimal: string;
  readonly dates: string;
  readonly formulas: string;
}

function datesWhy({
  dayFirst,
  monthFirst,
  either,
}: {
  readonly dayFirst: number;
  readonly monthFirst: number;
  readonly either: number;
}): string {
  if (dayFirst && monthFirst)
    return `${dayFirst} with the day first, ${monthFirst} with the month first: the fewer stay text`;
  if (dayFirst || monthFirst)
    return `${counted(dayFirst || monthFirst, 'date')} with the ${dayFirst ? 'day' : 'month'} first`;
  return either
    ? `${counted(either, 'date')} could be read either way: please check`
    : 'no date in numbers such as 8/3/2026 was found';
}

/** The best way to read a column, in a file whose other decimals stand after the sign given. */
function guessAs(facts: FieldFacts, decimal: Decimal): ReadAs {
  if (describeField(facts, decimal).kind === 'codes') return 'text';
  const { commaNumbers, pointNumbers } = facts;
  if (commaNumbers && !pointNumbers && decimal === '.') return 'comma';
  if (pointNumbers && !commaNumbers && decimal === ',') return 'point';
  return 'values';
}

/** The kind of the cells of a column whose decimals stand after the sign given, and how many of them are so. */
export function describeField(facts: FieldFacts, decimal: Decimal): FieldDescription {
  const { filled, codes, formulas, logicals } = facts;
  const [otherNumbers, texts, firstText] =
    decimal === ','
      ? [facts.commaNumbers, facts.texts, facts.firstText]
      : [0, facts.texts + facts.commaNumbers, facts.firstComma ?? facts.firstText];
  const dates = facts.dates + facts.dayFirst + facts.monthFirst + facts.eitherOrder;
  if (filled === 0) return { kind: 'blank', why: 'no values' };
  // With words among them too, such as A12, where nothing is measured.
  const isCoded =
    codes > 0 &&
    formulas + dates + logicals === 0 &&
    (facts.texts === 0 || facts.commaNumbers + facts.pointNumbers === 0);
  if (isCoded) return { kind: 'codes', why: `kept as text, since a number would lose digits of ${facts.firstCode}` };
  const kinds: [string, number][] = [
    ['numbers', facts.numbers + otherNumbers + codes],
    ['dates', dates],
    ['true or false', logicals],
    ['formulas', formulas],
    ['text', texts],
  ];
  const [kind, most] = kinds.reduce((best, each) => (each[1] > best[1] ? each : best));
  if (most === filled) return { kind, why: `all ${inDigits(filled)}` };
  const others = kinds.flatMap(([name, many]) =>
    name !== kind && many > 0 ? (many === 1 ? `1 ${name.replace(/s$/, '')}` : `${inDigits(many)} ${name}`) : [],
  );
  const example = kind !== 'text' && firstText !== null ? `, such as “${firstText.slice(0, 24)}”` : '';
  return { kind, why: `${inDigits(most)} of ${inDigits(filled)}, besides ${others.join(', ')}${example}` };
}

/** A text of the file as what would be typed for it. */
export function inputOf(raw: string, reading: TableReading, as: ReadAs): string {
  if (raw === '' || as === 'nothing') return '';
  if (as === 'text') return valueInput({ kind: 'text', text: raw });
  if (raw.startsWith('=')) return reading.formulas ? raw : valueInput({ kind: 'text', text: raw });
  const input = decimalOf(reading.decimal, as) === ',' ? withoutGroups(raw) : raw;
  if (input === raw && reading.dates !== null && NUMERIC.test(raw)) {
    const serial = readDate(raw.trim(), reading.dates);
    if (serial !== undefined) return valueInput({ kind: 'date', serial });
  }
  return input;
}

const NUMERIC = /^\s*\d{1,2}[/.-]\d{1,2}[/.-]\d{4}/;

/**
 * The row that holds the labels: the first of the first ten in which at least two cells, or all, are filled and all of
 * those are text that is no number, date or formula, with something beneath it. Null where no row is like that.
 */
export function findHeader(rows: readonly (readonly string[])[], width: number): number | null {
  const filledIn = (cells: readonly string[]) => cells.filter((cell) => cell.trim() !== '');
  const widest = Math.max(0, ...rows.slice(0, 20).map((cells) => filledIn(cells).length));
  for (const [position, cells] of rows.slice(0, 10).entries()) {
    const filled = filledIn(cells);
    if (filled.length < Math.min(2, width) || filled.length < widest / 2) continue;
    const facts = new FieldFacts();
    filled.forEach((cell) => facts.add(cell));
    if (facts.texts === facts.filled) return rows.length > position + 1 ? position : null;
    return null;
  }
  return null;
}
