import sql, { type Sql } from 'sql-template-tag';
import type { When } from '../kinds/registry';
import type { Problem } from '../terms';
import type { LinkedColumn } from './linked-table';
import type { SqlContext } from './sql-context';

/** The outcome of a cell of a column in SQL: a number from 0, or NULL for none. */
export type SaidCondition = (column: LinkedColumn) => Sql;

/** How a kind says its condition over the columns that a rule reads; or why it cannot. */
export type Says<W extends When> = (
  when: W,
  context: SqlContext,
  read: readonly LinkedColumn[],
) => SaidCondition | Problem;

/** No cell has an outcome. */
export const NEVER: Sql = sql`null::int`;

/** Outcome 0 where a condition holds. */
export const where = (condition: Sql | null): Sql => (condition ? sql`(case when ${condition} then 0 end)` : NEVER);
