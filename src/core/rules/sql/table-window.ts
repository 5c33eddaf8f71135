import sql, { join, raw, type Sql } from 'sql-template-tag';
import { columnOf, tableName, type LinkedColumn, type LinkedTable } from './linked-table';

/** A stretch of the rows of a table, in the order of its key: those after a key, from one on, before one, or from the first on. */
export interface TableWindow {
  readonly after?: readonly string[];
  readonly from?: readonly string[];
  readonly before?: readonly string[];
  readonly limit: number;
}

/** What limits a statement to the rows of a window, and of those to some that fulfil a condition, and orders them. Those before a key come the last first. */
export function windowLimits(
  { key }: Pick<LinkedTable, 'key'>,
  { after, from, before, limit }: TableWindow,
  condition?: Sql,
): Sql {
  const columns = join(key.map(columnOf), ', ');
  const edge = after ?? from ?? before;
  const order = join(
    key.map((name) => sql`${columnOf(name)} ${raw(before ? 'desc' : 'asc')}`),
    ', ',
  );
  const sign = raw(before ? '<' : from ? '>=' : '>');
  const limits = [...(edge ? [sql`(${columns}) ${sign} (${join(edge)})`] : []), ...(condition ? [condition] : [])];
  const where = limits.length ? sql`where ${join(limits, ' and ')} ` : sql``;
  return sql`${where}order by ${order} limit ${raw(String(limit))}`;
}

/** The key of a row as texts, under k1, k2 and so on. */
export const keyTexts = ({ key }: Pick<LinkedTable, 'key'>): Sql =>
  join(
    key.map((name, at) => sql`${columnOf(name)}::text as ${raw(`k${at + 1}`)}`),
    ', ',
  );

/** A value as text: moments in the zone of the sheet, with neither zone nor fractions of a second. */
export function valueText(column: LinkedColumn, zone: string): Sql {
  const held = columnOf(column.name);
  if (column.type !== 'moment') return sql`${held}::text`;
  const local = column.isZoned ? sql`(${held} at time zone ${zone}::text)` : held;
  return sql`to_char(${local}, 'YYYY-MM-DD HH24:MI:SS')`;
}

/** The rows of a window, with the key of each, and the values under c1, c2 and so on as texts. */
export function windowRows(table: LinkedTable, window: TableWindow, zone: string): Sql {
  const values = table.columns.map((column, at) => sql`${valueText(column, zone)} as ${raw(`c${at + 1}`)}`);
  return sql`select ${keyTexts(table)}, ${join(values, ', ')} from ${tableName(table)} t ${windowLimits(table, window)}`;
}
