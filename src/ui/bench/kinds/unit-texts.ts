import type { ChangeUnit } from '../../../core/rules/kinds/change';

/** The texts of units of time, each for so many of it. */
export const UNIT_TEXTS = {
  minute: 'unitMinute',
  hour: 'unitHour',
  day: 'unitDay',
  week: 'unitWeek',
  month: 'unitMonth',
  quarter: 'unitQuarter',
  year: 'unitYear',
} as const satisfies Record<ChangeUnit, string>;
