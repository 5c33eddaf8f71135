import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { LinkedColumn } from './linked-table';
import type { SqlContext } from './sql-context';

/** At each percent from 0 to 100. */
const PERCENTS = Array.from({ length: 101 }, (_, percent) => percent / 100);

/** Numbers as an array of SQL, which is read once and not for each row. */
export const numberList = (numbers: readonly number[]): Sql =>
  sql`(select ${`{${numbers.join(',')}}`}::text::float8[])`;

/** The cells of some columns, one under the other: the number `x`, and what else they are. */
function cells(context: SqlContext, read: readonly LinkedColumn[]): Sql {
  const { values } = context;
  const parts = read.map((column) => {
    const amount = values.amount(column) ?? sql`null::float8`;
    const isDate = raw(String(column.type === 'day' || column.type === 'moment'));
    return sql`select ${amount} as x, ${values.isBlank(column)} as is_blank, ${isDate} as is_date from ${context.rows()}`;
  });
  return join(parts, ' union all ');
}

/**
 * What the bench says of the values that a rule reads, as one row: how many are numbers, blank and others; least,
 * greatest, mean, deviation; percentiles; and around each threshold the nearest values, as b1, a1 and g1 and so on.
 */
export function valuesOfTable(context: SqlContext, read: readonly LinkedColumn[], thresholds: readonly number[]): Sql {
  const near = thresholds.map((threshold, at) => {
    const [value, place] = [sql`${threshold}::float8`, String(at + 1)];
    return sql`, max(x) filter (where x < ${value}) as ${raw(`b${place}`)}, count(*) filter (where x = ${value}) as ${raw(`a${place}`)},
      min(x) filter (where x > ${value}) as ${raw(`g${place}`)}`;
  });
  return sql`select count(x) as numbers, count(*) filter (where is_blank) as blanks,
    count(*) filter (where x is null and not is_blank) as others, count(x) filter (where is_date) as dates,
    min(x) as least, max(x) as greatest, avg(x) as mean, stddev_samp(x) as deviation,
    percentile_cont(${numberList(PERCENTS)}) within group (order by x) as percentiles${near.length ? join(near, '') : sql``}
    from (${cells(context, read)}) cells`;
}
