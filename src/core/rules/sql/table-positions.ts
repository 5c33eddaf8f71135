import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { When } from '../kinds/registry';
import type { Rule } from '../shape/rule';
import { isProblem, type Problem } from '../terms';
import type { LinkedTable } from './linked-table';
import { numberGroups } from './number-groups';
import { barEnds, readPositions } from './say-positions';
import { SqlContext, type LinkedSettings } from './sql-context';

/** The kinds that place numbers on a scale: outcomes alone do not say how a number looks. */
export type ScaleWhen = Extract<When, { readonly kind: 'scale' | 'bar' | 'icons' }>;

export const isScale = (when: When): when is ScaleWhen =>
  when.kind === 'scale' || when.kind === 'bar' || when.kind === 'icons';

/**
 * A statement for the positions of a rule among all numbers, as p0, p1 and so on; null where it sorts the numbers into
 * groups, each with positions of its own; a problem where they cannot be said.
 */
export function positionsOfTable(
  table: LinkedTable,
  { when, reads }: Pick<Rule, 'reads'> & { readonly when: ScaleWhen },
  settings: LinkedSettings,
): Sql | Problem | null {
  if (when.per !== undefined && when.per !== 'all') return null;
  const context = new SqlContext(table, settings);
  const read = table.columns.filter(({ name }) => 'fields' in reads && reads.fields.includes(name));
  const groups = numberGroups(when.per, context, read);
  if (isProblem(groups)) return groups;
  const positions =
    when.kind === 'bar'
      ? barEnds(when)
      : readPositions((when.kind === 'scale' ? when.stops : when.cuts).map(({ at }) => at));
  if ('code' in positions) return positions;
  const named = positions.map((position, at) => sql`${position} as ${raw(`p${at}`)}`);
  return sql`select ${join(named, ', ')} from (${groups.numbers}) numbers`;
}

/** The same condition with numbers for its positions. */
export function withPositions(when: ScaleWhen, positions: readonly number[]): ScaleWhen {
  const at = (place: number): number => positions[place] ?? NaN;
  switch (when.kind) {
    case 'scale':
      return { ...when, stops: when.stops.map((stop, place) => ({ ...stop, at: at(place) })) };
    case 'icons':
      return { ...when, cuts: when.cuts.map((cut, place) => ({ ...cut, at: at(place) })) };
    case 'bar':
      return { ...when, from: at(0), to: at(1) };
  }
}
