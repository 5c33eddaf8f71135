import sql, { join, raw, type Sql } from 'sql-template-tag';
import { edgeOf, type BandsWhen } from '../kinds/bands';
import { isProblem } from '../terms';
import { NEVER, type Says } from './said-condition';
import { unsaid } from './sql-context';

/** The band of a number, by cuts that rise. */
export const sayBands: Says<BandsWhen> = (when, context) => {
  const cuts: Sql[] = [];
  let isFixed = true;
  for (const cut of when.cuts) {
    if (typeof cut === 'number') cuts.push(sql`${cut}::float8`);
    else if (typeof cut !== 'object' || !('field' in cut)) return unsaid('a cut that is a cell or a formula');
    else {
      const column = context.column(cut.field);
      if (isProblem(column)) return column;
      const { times = 1, plus = 0 } = cut;
      const number = context.values.number(column);
      cuts.push(number ? sql`(${number} * ${times}::float8 + ${plus}::float8)` : sql`null::float8`);
      isFixed = false;
    }
  }
  const rises = cuts.slice(1).map((cut, at) => sql`${cut} >= ${cuts[at]}`);
  const isKnown = isFixed ? sql`` : sql` and ${join([sql`${cuts[0]} is not null`, ...rises], ' and ')}`;
  return (column) => {
    const number = context.values.number(column);
    if (!number) return NEVER;
    const sized = when.magnitude ? sql`abs(${number})` : number;
    const steps = cuts.map((cut, at) => sql`(${sized} ${raw(edgeOf(when, at) === 'lower' ? '>=' : '>')} ${cut})::int`);
    return sql`(case when ${number} is not null${isKnown} then ${join(steps, ' + ')} end)`;
  };
};
