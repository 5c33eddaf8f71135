import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { Position } from '../compile/positions';
import type { BarWhen } from '../kinds/bar';
import type { IconsWhen } from '../kinds/icons';
import type { ScaleWhen } from '../kinds/scale';
import { isProblem, type Problem } from '../terms';
import type { Per } from '../compile/grouping';
import type { LinkedColumn } from './linked-table';
import { numberGroups, type GroupRelation } from './number-groups';
import { NEVER, where, type SaidCondition, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** Where a position is among the numbers `x` of a group. */
function positionAmong(position: Position): Sql | Problem {
  if (typeof position === 'number') return sql`${position}::float8`;
  if (position === 'least') return sql`min(x)`;
  if (position === 'greatest') return sql`max(x)`;
  if ('percent' in position) return sql`min(x) + ${position.percent / 100}::float8 * (max(x) - min(x))`;
  if ('percentile' in position)
    return sql`percentile_cont(${position.percentile / 100}::float8) within group (order by x)`;
  return unsaid('a position that is a cell or a formula');
}

interface Positions {
  readonly groups: GroupRelation;
  /** False where positions fall in any group: then the rule cannot work. */
  readonly isWell: Sql;
}

interface PositionOptions {
  readonly per: Per | undefined;
  readonly context: SqlContext;
  readonly read: readonly LinkedColumn[];
}

/** The positions of each group, as p0, p1 and so on. */
function positionsOf(positions: readonly Sql[], { per, context, read }: PositionOptions): Positions | Problem {
  const groups = numberGroups(per, context, read);
  if (isProblem(groups)) return groups;
  const named = positions.map((position, at) => sql`, ${position} as ${raw(`p${at}`)}`);
  const relation = groups.relation(
    sql`select g, count(*) as n${join([sql``, ...named], '')} from (${groups.numbers}) numbers group by g`,
  );
  const falls = positions.slice(1).map((_, at) => raw(`p${at + 1} < p${at}`));
  const isWell = falls.length ? sql`not exists (select from ${relation.name} where ${join(falls, ' or ')})` : sql`true`;
  return { groups: relation, isWell };
}

/** The positions of a rule among the numbers `x`; a problem where one cannot be said. */
export function readPositions(given: readonly Position[]): readonly Sql[] | Problem {
  const found: Sql[] = [];
  for (const position of given) {
    const among = positionAmong(position);
    if ('code' in among) return among;
    found.push(among);
  }
  return found;
}

/** An icon for every number, by cuts. */
export const sayIcons: Says<IconsWhen> = (when, context, read) => {
  const cuts = readPositions(when.cuts.map(({ at }) => at));
  if ('code' in cuts) return cuts;
  const positions = positionsOf(cuts, { per: when.per, context, read });
  if (isProblem(positions)) return positions;
  const { groups, isWell } = positions;
  return (column) => {
    const amount = context.values.amount(column);
    if (!amount) return NEVER;
    // The last cut that is reached counts.
    const steps = when.cuts
      .map(({ edge = '>=' }, at) => {
        const icon = when.reverse ? when.cuts.length - at - 1 : at + 1;
        return sql`when ${amount} ${raw(edge)} ${groups.of(column, `p${at}`)} then ${raw(String(icon))}`;
      })
      .reverse();
    const first = raw(String(when.reverse ? when.cuts.length : 0));
    return sql`(case when ${amount} is null or ${groups.of(column, 'n')} is null or not ${isWell} then null ${join(steps, ' ')} else ${first} end)`;
  };
};

/** Every number that belongs to a group. */
function sayShades(ends: readonly Sql[], options: PositionOptions): SaidCondition | Problem {
  const positions = positionsOf(ends, options);
  if (isProblem(positions)) return positions;
  const { groups, isWell } = positions;
  return (column) => {
    const amount = options.context.values.amount(column);
    return amount ? where(sql`${amount} is not null and ${groups.of(column, 'n')} is not null and ${isWell}`) : NEVER;
  };
}

export const sayScale: Says<ScaleWhen> = ({ stops, per }, context, read) => {
  const found = readPositions(stops.map(({ at }) => at));
  return 'code' in found ? found : sayShades(found, { per, context, read });
};

/** Where bars begin and end. */
export function barEnds({ from = 'auto', to = 'auto' }: BarWhen): readonly Sql[] | Problem {
  const low = from === 'auto' ? sql`least(0, min(x))` : positionAmong(from);
  const high = to === 'auto' ? sql`greatest(0, max(x))` : positionAmong(to);
  if ('code' in low) return low;
  return 'code' in high ? high : [low, high];
}

export const sayBar: Says<BarWhen> = (when, context, read) => {
  const ends = barEnds(when);
  return 'code' in ends ? ends : sayShades(ends, { per: when.per, context, read });
};
