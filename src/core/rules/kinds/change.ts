import { hasKey, keysOf } from '../../values/typed-keys';
import { lazySchema } from '../../lazy-schema';
import { shownAt } from '../../sheet/shown-cell';
import { numberOf, type CellValue } from '../../values/cell-value';
import { monthsLater } from '../../values/dates/calendar';
import { shownText } from '../../values/shown-text';
import { amountOf, amountOrPercentSchema, type AmountOrPercent } from '../compile/amount-or-percent';
import { compareValues } from '../compile/compare-values';
import type { CompileContext } from '../compile/compile-context';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Comparison, ConditionKind, Kernel } from './kind';
import type { Inputs } from '../terms';

export const MOVES = { changed: 'has changed', rose: 'has risen', fell: 'has fallen' } as const;
/** Days in a unit of time; calendar units are counted by months. */
export const DAYS = { minute: 1 / 1440, hour: 1 / 24, day: 1, week: 7 } as const;
const MONTHS = { month: 1, quarter: 3, year: 12 } as const;
export type ChangeUnit = keyof typeof DAYS | keyof typeof MONTHS;
export const CHANGE_UNITS: readonly ChangeUnit[] = [...keysOf(DAYS), ...keysOf(MONTHS)];

export interface ChangeWhen {
  readonly kind: 'change';
  readonly is: keyof typeof MOVES;
  /** How much at least: a number, or a percentage of what it was, such as "10%". */
  readonly by?: AmountOrPercent;
  readonly within?: { readonly n: number; readonly unit: ChangeUnit };
  /** A snapshot of the sheet to compare with. */
  readonly since?: string;
}

/** The content of a cell against its last one before a moment, by the sheet's history. */
export const change: ConditionKind<ChangeWhen> = {
  schema: lazySchema<ChangeWhen>((joi) =>
    joi
      .object<ChangeWhen>({
        kind: joi.valid('change').required(),
        is: joi.valid(...Object.keys(MOVES)).required(),
        by: amountOrPercentSchema(joi),
        within: joi.object({
          n: joi.number().strict().integer().min(1).max(1_000_000).required(),
          unit: joi.valid(...CHANGE_UNITS).required(),
        }),
        since: joi.string().min(1),
      })
      .custom((when: ChangeWhen, helpers) =>
        (when.within === undefined) === (when.since === undefined)
          ? helpers.message({ custom: '{{#label}} must have either "within" or "since"' })
          : when,
      ),
  ),
  outcomes: 'match',
  mapReferences: (when) => when,
  outcomeLooks: () => undefined,
  compile(when, context) {
    const moment = momentBefore(when, context);
    if (moment === undefined)
      return { code: 'missing-snapshot', message: `there is no snapshot "${when.since}" of this sheet` };
    return new ChangeKernel(when, context, moment);
  },
  sentence(when) {
    const much = when.by === undefined ? '' : ` by ${when.by} or more`;
    const since = when.within
      ? `within ${when.within.n} ${when.within.unit}${when.within.n === 1 ? '' : 's'}`
      : `since ${when.since}`;
    return `${MOVES[when.is]}${much} ${since}`;
  },
  outcomeName: () => '',
  defaults: () => ({ kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } }),
  thresholds: () => [],
  examples: [
    {
      says: 'without a history nothing has changed',
      when: { kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } },
      inputs: ['5', 'x', ''],
      outcomes: [-1, -1, -1],
    },
    {
      says: 'nor has anything risen',
      when: { kind: 'change', is: 'rose', by: '10%', within: { n: 2, unit: 'month' } },
      inputs: ['5', ''],
      outcomes: [-1, -1],
    },
  ],
};

function momentBefore({ within, since }: ChangeWhen, { formulas, history }: CompileContext): number | undefined {
  const { now } = formulas;
  if (!within) return history && since ? history.momentOf(since) : now;
  const { n, unit } = within;
  if (hasKey(DAYS, unit)) return now - n * DAYS[unit];
  return monthsLater(now, -n * MONTHS[unit]) + (now - Math.floor(now));
}

class ChangeKernel implements Kernel {
  readonly inputs: Inputs;

  constructor(
    private readonly when: ChangeWhen,
    private readonly context: CompileContext,
    private readonly moment: number,
  ) {
    this.inputs = {
      sameRow: [],
      wholeColumns: [],
      cells: [],
      isTimeDependent: when.within !== undefined,
      needsHistory: true,
    };
  }

  private beforeAt(column: number, slot: number): CellValue | undefined {
    return this.context.history?.valueBefore(column, slot, this.moment);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const before = this.beforeAt(column, slot);
    return before !== undefined && hasMoved(this.when, before, this.context.sheet.column(column).valueAt(slot))
      ? 0
      : -1;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  private whyUnknown(column: number, slot: number): string {
    const isCalculated = this.context.sheet.column(column).formulas.has(slot);
    return isCalculated ? 'the past of what a formula gives is not kept' : 'nothing is known of it before';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const before = this.beforeAt(column, slot);
    const note =
      this.context.history === null
        ? 'there is no history to compare with'
        : before === undefined
          ? this.whyUnknown(column, slot)
          : undefined;
    return {
      left: shownAt(this.context.sheet, column, slot) || 'blank',
      relation: MOVES[this.when.is],
      right: before === undefined ? 'nothing known' : shownText(before, null) || 'blank',
      ...(note ? { note } : {}),
    };
  }
}

function hasMoved({ is, by }: ChangeWhen, before: CellValue, now: CellValue): boolean {
  const [was, value] = [numberOf(before), numberOf(now)];
  if (by === undefined && is === 'changed') return !isEqual(before, now);
  if (Number.isNaN(was) || Number.isNaN(value) || before.kind !== now.kind) return false;
  const moved = value - was;
  const size = is === 'changed' ? Math.abs(moved) : is === 'rose' ? moved : -moved;
  return size > 0 && size >= amountOf(by ?? 0, was);
}

const isEqual = (one: CellValue, other: CellValue): boolean =>
  one.kind === other.kind &&
  (one.kind === 'blank' ||
    (one.kind === 'error' && other.kind === 'error' && one.error === other.error) ||
    compareValues(one, other) === 0);
