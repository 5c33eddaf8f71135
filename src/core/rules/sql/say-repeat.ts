import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { RepeatWhen } from '../kinds/repeat';
import { isProblem } from '../terms';
import type { LinkedColumn } from './linked-table';
import { where, type Says } from './said-condition';
import type { SqlContext } from './sql-context';

/** Contents that occur several times, or once, among the cells read; or combinations of fields. */
export const sayRepeat: Says<RepeatWhen> = (when, context, read) => {
  const by: LinkedColumn[] = [];
  for (const field of when.by ?? []) {
    const column = context.column(field);
    if (isProblem(column)) return column;
    by.push(column);
  }
  return by.length ? combinations(when, context, by) : contents(when, context, read);
};

/** Each row counts once, by the contents of several fields together. */
function combinations(when: RepeatWhen, context: SqlContext, by: readonly LinkedColumn[]) {
  const { values } = context;
  const parts = by.map((column) => values.content(column, when));
  const isFilled = join(
    by.map((column) => sql`not ${values.isBlank(column)}`),
    ' or ',
  );
  const isValid = join(
    by.map((column) => sql`not ${values.isError(column)}`),
    ' and ',
  );
  const key = sql`(case when (${isFilled}) and ${isValid} then array[${join(parts, ', ')}]::text end)`;
  const position = asksFirst(when) ? context.position() : raw('0');
  const met = context.relation((rows) => counted(sql`select ${key} as g, ${position} as place from ${rows}`));
  const joined = context.join(met, key);
  const said = where(membership(when, joined, position));
  return () => said;
}

/** The cells of all columns read together. */
function contents(when: RepeatWhen, context: SqlContext, read: readonly LinkedColumn[]) {
  const width = context.table.columns.length;
  const placeOf = (column: LinkedColumn): Sql =>
    asksFirst(when)
      ? sql`${context.position()} * ${raw(String(width))} + ${raw(String(context.table.columns.indexOf(column)))}`
      : raw('0');
  const cells = (rows: Sql): Sql =>
    join(
      read.map(
        (column) => sql`select ${context.values.content(column, when)} as g, ${placeOf(column)} as place from ${rows}`,
      ),
      ' union all ',
    );
  // Rows are ordered, where that is asked for, before they are counted.
  if (asksFirst(when)) context.position();
  const met = context.relation((rows) => counted(cells(rows)));
  const said = new Map(
    read.map((column) => {
      const joined = context.join(met, context.values.content(column, when));
      return [column, where(membership(when, joined, placeOf(column)))];
    }),
  );
  return (column: LinkedColumn): Sql => said.get(column) ?? where(null);
}

const asksFirst = ({ is }: RepeatWhen): boolean => is === 'first' || is === 'again';

const counted = (cells: Sql): Sql =>
  sql`select g, count(*) as met, min(place) as first from (${cells}) cells where g is not null group by g`;

function membership({ is }: RepeatWhen, joined: Sql, place: Sql): Sql {
  switch (is) {
    case 'repeated':
      return sql`${joined}.met > 1`;
    case 'unique':
      return sql`${joined}.met = 1`;
    case 'first':
      return sql`${joined}.met > 1 and ${joined}.first = ${place}`;
    case 'again':
      return sql`${joined}.met > 1 and ${joined}.first <> ${place}`;
  }
}
