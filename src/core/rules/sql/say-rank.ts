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
  const places = (count: Sql): Sql =>
    n === undefined
      ? sql`greatest(1, floor(${count} * ${percent}::float8 / 100))::bigint`
      : sql`least(${count}, ${n}::bigint)`;
  const counted = raw('count');
  // Of one group only as many are sorted as are wanted, or an index is followed.
  const edges = groups.relation(
    groups.isGrouped
      ? sql`select g, x as edge from (
          select g, x, row_number() over (partition by g order by x ${order}) as place, count(*) over (partition by g) as count
          from (${groups.numbers}) numbers
        ) placed where place = ${places(counted)}`
      : sql`(select g, x as edge from (${groups.numbers}) numbers order by x ${order}
          limit 1 offset greatest(0, (select ${places(sql`count(*)`)} - 1 from (${groups.numbers}) counted)))`,
  );
  return (column) => {
    const amount = context.values.amount(column);
    return amount ? where(sql`${amount} ${raw(is === 'top' ? '>=' : '<=')} ${edges.of(column, 'edge')}`) : NEVER;
  };
};
