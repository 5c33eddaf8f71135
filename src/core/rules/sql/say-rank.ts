import sql, { raw, type Sql } from 'sql-template-tag';
import type { RankWhen } from '../kinds/rank';
import { isProblem } from '../terms';
import { numberGroups } from './number-groups';
import { NEVER, where, type Says } from './said-condition';

/** The greatest or least numbers of a group, ties at the edge included. */
export const sayRank: Says<RankWhen> = ({ is, n, percent = 0, per }, context, read) => {
  const groups = numberGroups(per, context, read);
  if (isProblem(groups)) return groups;
  const order = raw(is === 'top' ? 'desc' : 'asc');
  const wanted =
    n === undefined ? sql`greatest(1, floor(count * ${percent}::float8 / 100))` : sql`least(count, ${n}::bigint)`;
  const edges = groups.relation(
    groups.isGrouped
      ? sql`select g, x as edge from (
          select g, x, row_number() over (partition by g order by x ${order}) as place, count(*) over (partition by g) as count
          from (${groups.numbers}) numbers
        ) placed where place = ${wanted}`
      : sql`select ''::text as g, ${edgeOfAll({ is, n, percent, numbers: groups.numbers })} as edge`,
  );
  return (column) => {
    const amount = context.values.amount(column);
    return amount ? where(sql`${amount} ${raw(is === 'top' ? '>=' : '<=')} ${edges.of(column, 'edge')}`) : NEVER;
  };
};

interface OneGroup extends Required<Pick<RankWhen, 'is' | 'percent'>> {
  readonly n: number | undefined;
  readonly numbers: Sql;
}

/** The last number that is wanted of one group: only as many are sorted as are wanted, or an index is followed. */
function edgeOfAll({ is, n, percent, numbers }: OneGroup): Sql {
  const order = raw(is === 'top' ? 'desc' : 'asc');
  const before =
    n === undefined
      ? sql`(select greatest(1, floor(count(*) * ${percent}::float8 / 100))::bigint - 1 from (${numbers}) counted)`
      : raw(String(n - 1));
  const edge = sql`(select x from (${numbers}) numbers order by x ${order} limit 1 offset ${before})`;
  // Of fewer numbers than are wanted all are.
  return sql`coalesce(${edge}, (select ${raw(is === 'top' ? 'min' : 'max')}(x) from (${numbers}) few))`;
}
