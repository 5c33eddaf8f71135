import { hasKey } from '../../values/typed-keys';
import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import { shownAt } from '../../sheet/shown-cell';
import { monthsLater, partsOf, rolledSerial, weekdayOf } from '../../values/dates/calendar';
import { TAG, type CellValue } from '../../values/cell-value';
import { isoFromSerial } from '../../values/dates/date-serial';
import { readDate } from '../../values/dates/read-date';
import type { CompileContext } from '../compile/compile-context';
import { joinInputs, readOperands, type OperandReader } from '../compile/operands';
import type { OutcomeColumn } from '../compile/outcome-column';
import { isProblem, type Inputs, type Operand, type SentenceWords, operandList } from '../terms';
import type { Comparison, ConditionKind, Kernel } from './kind';
import { mapOperand, operandSchema } from '../compile/operand-schema';

export const DATE_UNITS = ['day', 'week', 'month', 'quarter', 'year'] as const;
export type DateUnit = (typeof DATE_UNITS)[number];

/** Tests by a day or two that the rule gives. */
export const DAYS_GIVEN = { before: 'is before', after: 'is after', on: 'is on', between: 'is between' } as const;
/** Tests by today alone. */
export const DAYS_BY_TODAY = {
  today: 'is today',
  yesterday: 'is yesterday',
  tomorrow: 'is tomorrow',
  past: 'is in the past',
  future: 'is in the future',
} as const;

type CalendarSpan = { readonly this: DateUnit } | { readonly previous: DateUnit } | { readonly following: DateUnit };
/** Days around today. */
export type RelativeSpan =
  | { readonly last: number; readonly unit: DateUnit }
  | { readonly next: number; readonly unit: DateUnit }
  | CalendarSpan;

/** So many units before or after today, today included. */
export const runOfDays = (which: 'last' | 'next', count: number, unit: DateUnit): RelativeSpan =>
  which === 'last' ? { last: count, unit } : { next: count, unit };

export type CalendarSpanName = 'this' | 'previous' | 'following';

/** A whole unit of the calendar. */
export function unitOfCalendar(which: CalendarSpanName, unit: DateUnit): CalendarSpan {
  if (which === 'this') return { this: unit };
  return which === 'previous' ? { previous: unit } : { following: unit };
}

/** Which unit of the calendar a span is, and how many units it is away from the one that holds today. */
export function calendarSpan(span: CalendarSpan): {
  readonly which: CalendarSpanName;
  readonly unit: DateUnit;
  readonly away: -1 | 0 | 1;
} {
  if ('this' in span) return { which: 'this', unit: span.this, away: 0 };
  if ('previous' in span) return { which: 'previous', unit: span.previous, away: -1 };
  return { which: 'following', unit: span.following, away: 1 };
}

export interface DateWhen {
  readonly kind: 'date';
  readonly is: keyof typeof DAYS_GIVEN | keyof typeof DAYS_BY_TODAY | RelativeSpan;
  /** A day, or two for `between`. */
  readonly to?: Operand | readonly [Operand, Operand];
}

export const daysGivenIn = ({ to }: DateWhen): readonly Operand[] => operandList(to);

const isSchema = lazySchema(
  (joi) => {
    const unit = joi.valid(...DATE_UNITS).required();
    const count = joi.number().strict().integer().min(1).max(100_000).required();
    return joi
      .alternatives()
      .try(
        joi.valid(...Object.keys(DAYS_GIVEN), ...Object.keys(DAYS_BY_TODAY)),
        joi.object({ last: count, unit }),
        joi.object({ next: count, unit }),
        ...['this', 'previous', 'following'].map((key) => joi.object({ [key]: unit })),
      );
  },
  `${[...Object.keys(DAYS_BY_TODAY), ...Object.keys(DAYS_GIVEN)].join(', ')}, { "last": 7, "unit": "day" }, { "next": 2, "unit": "week" }, { "this": "month" }, { "previous": "quarter" } or { "following": "year" }`,
);

/** A date against today or against days given; the time of day is ignored. */
export const date: ConditionKind<DateWhen> = {
  schema: lazySchema<DateWhen>((joi) =>
    joi
      .object<DateWhen>({
        kind: joi.valid('date').required(),
        is: isSchema(joi).required(),
        to: joi.when('is', {
          is: joi.valid('between'),
          then: joi
            .array()
            .items(operandSchema(['string'])(joi))
            .length(2)
            .required(),
          otherwise: joi.when('is', {
            is: joi.valid('before', 'after', 'on'),
            then: operandSchema(['string'])(joi).required(),
            otherwise: joi.forbidden(),
          }),
        }),
      })
      .custom((when: DateWhen, helpers) => {
        const wrong = daysGivenIn(when).find(
          (operand) => typeof operand === 'string' && readDate(operand.trim()) === undefined,
        );
        return wrong === undefined
          ? when
          : helpers.message({ custom: '{{#label}}.to must be a date such as "2026-03-08"' });
      }),
  ),
  outcomes: 'match',
  mapReferences(when, to) {
    if (when.to === undefined) return when;
    const mapped = daysGivenIn(when).map((operand) => mapOperand(operand, to));
    return { ...when, to: when.is === 'between' ? [itemAt(mapped, 0), itemAt(mapped, 1)] : itemAt(mapped, 0) };
  },
  outcomeLooks: () => undefined,
  compile(when, context) {
    const operands = readOperands(daysGivenIn(when), context);
    return isProblem(operands) ? operands : new DateKernel(when, context, operands);
  },
  sentence: (when, words) =>
    [
      testWords(when.is),
      daysGivenIn(when)
        .map((operand) => dateWords(operand, words))
        .join(' and '),
    ]
      .filter(Boolean)
      .join(' '),
  outcomeName: () => '',
  defaults: () => ({ kind: 'date', is: { last: 7, unit: 'day' } }),
  thresholds: () => [],
  isByRecord: () => true,
  examples: [
    {
      says: 'on a day, whatever the time of day; a text is no date',
      when: { kind: 'date', is: 'on', to: '2026-03-08' },
      inputs: ['2026-03-08', '2026-03-08 14:30', '2026-03-09', '46089', "'2026-03-08", ''],
      outcomes: [0, 0, -1, -1, -1, -1],
    },
    {
      says: 'between takes both days, given in any order',
      when: { kind: 'date', is: 'between', to: ['2026-03-10', '2026-03-08'] },
      inputs: ['2026-03-07', '2026-03-08', '2026-03-10 23:59', '2026-03-11'],
      outcomes: [-1, 0, 0, -1],
    },
  ],
};

const dateWords = (operand: Operand, words: SentenceWords): string =>
  typeof operand === 'string' ? operand : words.operand(operand);

function testWords(is: DateWhen['is']): string {
  if (typeof is === 'string') return hasKey(DAYS_GIVEN, is) ? DAYS_GIVEN[is] : DAYS_BY_TODAY[is];
  if ('last' in is) return `is in the last ${is.last} ${is.unit}${is.last === 1 ? '' : 's'}`;
  if ('next' in is) return `is in the next ${is.next} ${is.unit}${is.next === 1 ? '' : 's'}`;
  const { which, unit } = calendarSpan(is);
  return which === 'this' ? `is in this ${unit}` : `is in the ${which} ${unit}`;
}

/** First and last day, both included. */
type Days = readonly [from: number, to: number];

/** The days that a test by today means. */
export function daysOf(is: keyof typeof DAYS_BY_TODAY | RelativeSpan, today: number, firstWeekday: number): Days {
  switch (is) {
    case 'today':
      return [today, today];
    case 'yesterday':
      return [today - 1, today - 1];
    case 'tomorrow':
      return [today + 1, today + 1];
    case 'past':
      return [-Infinity, today - 1];
    case 'future':
      return [today + 1, Infinity];
  }
  if ('last' in is) return [lastBegins(is.last, is.unit, today), today];
  if ('next' in is) return [today, nextEnds(is.next, is.unit, today)];
  const { unit, away } = calendarSpan(is);
  return calendarUnit(unit, { today, firstWeekday, away });
}

const MONTHS: Partial<Record<DateUnit, number>> = { month: 1, quarter: 3, year: 12 };

function lastBegins(n: number, of: DateUnit, today: number): number {
  const months = MONTHS[of];
  return months ? monthsLater(today, -n * months) + 1 : today - n * (of === 'week' ? 7 : 1) + 1;
}

function nextEnds(n: number, of: DateUnit, today: number): number {
  const months = MONTHS[of];
  return months ? monthsLater(today, n * months) - 1 : today + n * (of === 'week' ? 7 : 1) - 1;
}

/** A day, week, month, quarter or year of the calendar, as an offset from the one that holds today. */
function calendarUnit(
  of: DateUnit,
  { today, firstWeekday, away }: { today: number; firstWeekday: number; away: number },
): Days {
  if (of === 'day') return [today + away, today + away];
  if (of === 'week') {
    const begins = today - ((weekdayOf(today) - firstWeekday + 7) % 7) + 7 * away;
    return [begins, begins + 6];
  }
  const months = MONTHS[of]!;
  const { year, month } = partsOf(today);
  const first = Math.floor((month - 1) / months) * months + 1 + away * months;
  return [rolledSerial(year, first, 1), rolledSerial(year, first + months, 0)];
}

class DateKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly readers: readonly OperandReader[];
  private readonly days: Days | undefined;

  constructor(
    private readonly when: DateWhen,
    private readonly context: CompileContext,
    operands: { readers: readonly OperandReader[]; inputs: Inputs },
  ) {
    const { sheet, formulas } = context;
    const { is } = when;
    const byToday = typeof is === 'object' || hasKey(DAYS_BY_TODAY, is) ? is : undefined;
    this.readers = operands.readers;
    this.inputs = joinInputs([
      operands.inputs,
      { sameRow: [], wholeColumns: [], cells: [], isTimeDependent: byToday !== undefined },
    ]);
    this.days = byToday
      ? daysOf(byToday, Math.floor(formulas.now), sheet.settings.firstWeekday ?? 0)
      : this.readers.every((reader) => reader.constant)
        ? this.givenDays(context.cells[0]?.column ?? 0, 0)
        : undefined;
  }

  /** The days that the rule gives beside a cell; from NaN to NaN where one is no date. */
  private givenDays(column: number, slot: number): Days {
    const [first = NaN, second = first] = this.readers.map((reader) =>
      Math.floor(serialOf(reader.valueAt(slot, column))),
    );
    switch (this.when.is) {
      case 'before':
        return [-Infinity, first - 1];
      case 'after':
        return [first + 1, Infinity];
      case 'on':
        return [first, first];
      default:
        return [Math.min(first, second), Math.max(first, second)];
    }
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const store = this.context.sheet.column(column);
    if (store.tags[slot] !== TAG.date) return -1;
    const [from, to] = this.days ?? this.givenDays(column, slot);
    const day = Math.floor(store.numberAt(slot));
    return day >= from && day <= to ? 0 : -1;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const { sheet } = this.context;
    const isDate = sheet.column(column).tags[slot] === TAG.date;
    const [from, to] = this.days ?? this.givenDays(column, slot);
    return {
      left: shownAt(sheet, column, slot) || 'blank',
      relation: testWords(this.when.is),
      right: spanWords(from, to),
      ...(isDate ? {} : { note: 'only dates are compared with days' }),
    };
  }
}

function spanWords(from: number, to: number): string {
  if (Number.isNaN(from) || Number.isNaN(to)) return 'no date';
  if (from === -Infinity) return `up to ${isoFromSerial(to)}`;
  if (to === Infinity) return `from ${isoFromSerial(from)}`;
  return from === to ? isoFromSerial(from) : `${isoFromSerial(from)} to ${isoFromSerial(to)}`;
}

function serialOf(value: CellValue): number {
  if (value.kind === 'date') return value.serial;
  return value.kind === 'text' ? (readDate(value.text.trim()) ?? NaN) : NaN;
}
