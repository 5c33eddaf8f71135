import sql, { type Sql } from 'sql-template-tag';
import { readDate } from '../../values/dates/read-date';
import { hasKey } from '../../values/typed-keys';
import { daysGivenIn, daysOf, DAYS_BY_TODAY, type DateWhen } from '../kinds/date';
import { isProblem, type Operand, type Problem } from '../terms';
import { NEVER, where, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** A date against today or against days given; the time of day is ignored. */
export const sayDate: Says<DateWhen> = (when, context) => {
  const { is } = when;
  const { now, firstWeekday } = context.settings;
  const days: Sql[] = [];
  if (typeof is === 'object' || hasKey(DAYS_BY_TODAY, is)) {
    const [from, to] = daysOf(is, Math.floor(now), firstWeekday);
    return (column) => {
      const serial = context.values.serial(column);
      return serial ? where(sql`floor(${serial}) between ${bound(from)} and ${bound(to)}`) : NEVER;
    };
  }
  for (const operand of daysGivenIn(when)) {
    const day = dayOf(operand, context);
    if (day === null) return () => NEVER;
    if (isProblem(day)) return day;
    days.push(day);
  }
  const [first, second = first] = days;
  return (column) => {
    const serial = context.values.serial(column);
    if (!serial || !first || !second) return NEVER;
    const day = sql`floor(${serial})`;
    switch (is) {
      case 'before':
        return where(sql`${day} < ${first}`);
      case 'after':
        return where(sql`${day} > ${first}`);
      case 'on':
        return where(sql`${day} = ${first}`);
      default:
        return where(sql`${day} between symmetric ${first} and ${second}`);
    }
  };
};

const bound = (day: number): Sql =>
  Number.isFinite(day) ? sql`${day}::float8` : sql`${day < 0 ? '-Infinity' : 'Infinity'}::float8`;

/** A day that the rule gives; null where it is none. */
function dayOf(operand: Operand, context: SqlContext): Sql | Problem | null {
  if (typeof operand === 'string') {
    const serial = readDate(operand.trim());
    return serial === undefined ? null : sql`${Math.floor(serial)}::float8`;
  }
  if (typeof operand !== 'object' || !('field' in operand)) return unsaid('a day that is a cell or a formula');
  const column = context.column(operand.field);
  if (isProblem(column)) return column;
  const serial = context.values.serial(column);
  if (column.type === 'text') return unsaid(`the texts of “${column.name}” as dates`);
  const { times = 1, plus = 0 } = operand;
  return serial && sql`floor(${serial} * ${times}::float8 + ${plus}::float8)`;
}
