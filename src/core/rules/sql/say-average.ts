import sql, { raw } from 'sql-template-tag';
import type { AverageWhen } from '../kinds/average';
import { isProblem } from '../terms';
import { averageRelation, meanRelation } from './average-relation';
import { numberGroups } from './number-groups';
import { NEVER, where, type Says } from './said-condition';

const SIGNS = { above: '>', below: '<', 'at-or-above': '>=', 'at-or-below': '<=' } as const;

/** A number against the average of its group, so many deviations away. */
export const sayAverage: Says<AverageWhen> = (when, context, read) => {
  const groups = numberGroups(when.per, context, read);
  if (isProblem(groups)) return groups;
  const { deviations = 0, is, spread = 'sample' } = when;
  const away = is === 'below' || is === 'at-or-below' ? -deviations : deviations;
  const averages = groups.relation(away === 0 ? meanRelation(groups) : averageRelation(groups, spread));
  return (column) => {
    const amount = context.values.amount(column);
    if (!amount) return NEVER;
    const mean = averages.of(column, 'mean');
    const limit = away === 0 ? mean : sql`(${mean} + ${away}::float8 * ${averages.of(column, 'deviation')})`;
    return where(sql`${amount} ${raw(SIGNS[is])} ${limit}`);
  };
};
