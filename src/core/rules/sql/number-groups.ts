import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { Per } from '../compile/grouping';
import { isProblem, type Problem } from '../terms';
import type { LinkedColumn } from './linked-table';
import type { SqlContext } from './sql-context';

/** The numbers of the columns read, sorted into groups: all, those of each field, or those of rows that share a value. */
export interface NumberGroups {
  /** A select of all of them: their group `g`, a text that is never NULL, and the number `x`. */
  readonly numbers: Sql;
  /** True where all are whole numbers. */
  readonly areWhole: boolean;
  /** False where all are one group, whose `g` is ''. */
  readonly isGrouped: boolean;
  /** Makes a relation of statistics, one row a group, with the group as `g`. */
  relation(body: Sql): GroupRelation;
}

export interface GroupRelation {
  readonly name: Sql;
  /** The statistic of a column's group beside the row that is looked at; NULL where it belongs to none. */
  of(column: LinkedColumn, statistic: string): Sql;
}

/** The groups of a rule's numbers; a problem where the field to group by is missing. */
export function numberGroups(
  per: Per | undefined,
  context: SqlContext,
  read: readonly LinkedColumn[],
): NumberGroups | Problem {
  const { values } = context;
  const by = typeof per === 'object' ? context.column(per.group) : null;
  if (by && isProblem(by)) return by;
  const groupOf = (column: LinkedColumn): Sql =>
    by ? values.content(by) : sql`${per === 'field' ? column.name : ''}::text`;
  const numbered = read.flatMap((column) => {
    const amount = values.amount(column);
    return amount ? [{ column, amount }] : [];
  });
  const rows = context.rows();
  const numbers =
    numbered.length === 0
      ? sql`select null::text as g, null::float8 as x where false`
      : sql`select g, x from (${join(
          numbered.map(({ column, amount }) => sql`select ${groupOf(column)} as g, ${amount} as x from ${rows}`),
          ' union all ',
        )}) cells where g is not null and x is not null`;
  return {
    numbers,
    areWhole: numbered.every(({ column }) => column.type === 'integer' || column.type === 'day'),
    isGrouped: per !== undefined && per !== 'all',
    relation(body) {
      const name = context.relation(() => body);
      const joined = by && context.join(name, groupOf(by));
      return {
        name,
        of: (column, statistic) =>
          joined
            ? sql`${joined}.${raw(statistic)}`
            : sql`(select ${raw(statistic)} from ${name} where g = ${groupOf(column)})`,
      };
    },
  };
}
