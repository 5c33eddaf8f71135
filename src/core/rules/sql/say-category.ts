import sql, { join, raw, type Sql } from 'sql-template-tag';
import { foldText } from '../../values/fold-text';
import type { CategoryWhen } from '../kinds/category';
import type { LinkedColumn } from './linked-table';
import { NEVER, type SaidCondition, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** Each value its own outcome: by a list of values, or as they are found in the table. */
export const sayCategory: Says<CategoryWhen> = (when, context, read) => {
  const texts = new Map<LinkedColumn, Sql>();
  for (const column of read) {
    const folded = context.values.folded(column);
    if (!folded) return unsaid(`the texts that the ${column.type}s of “${column.name}” are shown with`);
    texts.set(column, folded);
  }
  return when.looks ? listed(Object.keys(when.looks), texts) : found(when, context, texts);
};

function listed(names: readonly string[], texts: ReadonlyMap<LinkedColumn, Sql>): SaidCondition {
  const folded = names.map((name) => foldText(name));
  return (column) => {
    const text = texts.get(column);
    if (!text) return NEVER;
    const cases = folded.map((name, outcome) => sql`when (${name}::text collate "C") then ${raw(String(outcome))}`);
    return cases.length ? sql`(case ${text} ${join(cases, ' ')} end)` : NEVER;
  };
}

/** Values are numbered as they come in the order of rows, or by their folded text. */
function found({ order }: CategoryWhen, context: SqlContext, texts: ReadonlyMap<LinkedColumn, Sql>): SaidCondition {
  const position = order === 'alphabet' ? raw('0') : context.position();
  const width = context.table.columns.length;
  const seen = context.relation((rows) => {
    const cells = [...texts].map(
      ([column, text]) =>
        sql`select ${text} as g, ${position} * ${raw(String(width))} + ${raw(String(context.table.columns.indexOf(column)))} as place from ${rows}`,
    );
    const ordered = order === 'alphabet' ? sql`g collate "C"` : sql`min(place)`;
    return sql`select g, (row_number() over (order by ${ordered}) - 1)::int as outcome
      from (${join(cells, ' union all ')}) cells where g is not null group by g`;
  });
  const said = new Map([...texts].map(([column, text]) => [column, sql`${context.join(seen, text)}.outcome`]));
  return (column) => said.get(column) ?? NEVER;
}
