import sql, { raw, type Sql } from 'sql-template-tag';
import type { NumberGroups } from './number-groups';

/** 2^27 + 1 splits a double into two halves whose products are exact (T. Dekker, 1971). */
const SPLITTER = raw('134217729::float8');

/** A double's sign, exponent and digits, so that it is digits times 2^exponent. */
const bits = (x: Sql): Sql => sql`('x' || encode(float8send(${x}), 'hex'))::bit(64)::bigint`;
const EXPONENT = raw('(greatest((b >> 52) & 2047, 1) - 1075)::int');
const DIGITS = raw(`((b & 4503599627370495) + (case when (b >> 52) & 2047 = 0 then 0 else 4503599627370496 end))
  * (case when b < 0 then -1 else 1 end)`);

/** A power of two, exactly: that of a negative exponent has as many decimals. */
const powerOfTwo = (e: Sql): Sql =>
  sql`(case when ${e} >= 0 then power(2::numeric, ${e}) else power(5::numeric, -(${e})) * ('1e' || (${e}))::numeric end)`;

/** A double as the decimal number that it is, to the last digit. */
const exact = (x: Sql): Sql => sql`(select ${DIGITS} * ${powerOfTwo(EXPONENT)} from (select ${bits(x)} as b) bits)`;

const upperHalf = (x: Sql): Sql => sql`(${x} * ${SPLITTER} - (${x} * ${SPLITTER} - ${x}))`;

/** The rounding error of a product, from the halves of both: b d - (product - a c - b c - a d). */
const productError = (one: string, other: string, product: string): Sql =>
  raw(
    `(${one}_low * ${other}_low - (${product} - ${one}_up * ${other}_up - ${one}_low * ${other}_up - ${one}_up * ${other}_low))`,
  );

/** The square of a whole number below this is a double exactly. */
const SMALL = 94_906_265;

/** All numbers added up exactly, by exponent: their digits `m` in whole numbers, `mm` squared, and how many they are. */
function byExponent({ numbers, areWhole }: NumberGroups, of: 'means' | 'deviations'): Sql {
  if (areWhole) {
    // Small ones and their squares are added up as integers, which is quicker.
    const isSmall = raw(`abs(x) < ${SMALL}`);
    const added = (small: Sql, large: Sql): Sql =>
      sql`coalesce(sum(case when ${isSmall} then ${small} end), 0)::numeric + coalesce(sum(case when not ${isSmall} then ${large} end), 0)`;
    const sum = added(sql`x::int8`, sql`x::numeric`);
    const mm = of === 'deviations' ? sql`, ${added(sql`(x * x)::int8`, sql`x::numeric * x::numeric`)} as mm` : sql``;
    return sql`select g, 0 as e, ${sum} as m${mm}, count(*) as n from (${numbers}) numbers group by g`;
  }
  const squares = of === 'deviations' ? sql`, sum(m * m) as mm` : sql``;
  return sql`select g, e, sum(m) as m${squares}, count(*) as n from (
    select g, ${EXPONENT} as e, (${DIGITS})::numeric as m from (select g, ${bits(sql`x`)} as b from (${numbers}) numbers) bits
  ) digits group by g, e`;
}

/** The mean of the numbers of each group, as a relation with `g` and `mean`: the double that the core finds. */
export const meanRelation = (groups: NumberGroups): Sql =>
  sql`select g, sum(m * ${powerOfTwo(raw('e'))})::float8 / sum(n)::float8 as mean
    from (${byExponent(groups, 'means')}) parts group by g`;

/**
 * Mean and deviation of the numbers of each group, as a relation with `g`, `mean` and `deviation` (NULL where there is
 * none): the same doubles that the core finds (see `Moments`).
 */
export function averageRelation(groups: NumberGroups, spread: 'sample' | 'population'): Sql {
  const sums = sql`select g, sum(m * ${powerOfTwo(raw('e'))}) as s, sum(mm * ${powerOfTwo(raw('2 * e'))}) as q, sum(n)::float8 as n
    from (${byExponent(groups, 'deviations')}) parts group by g`;
  const doubles = sql`select g, n, s, q, s::float8 as sum, q::float8 as squares from (${sums}) sums`;
  const pairs = sql`select g, n, sum, (s - ${exact(raw('sum'))})::float8 as sum_rest,
    squares, (q - ${exact(raw('squares'))})::float8 as squares_rest, sum * sum as square from (${doubles}) doubles`;
  const squared = sql`select *, square / n as quotient, square / n * n as back, ${upperHalf(raw('sum'))} as sum_up,
    sum - ${upperHalf(raw('sum'))} as sum_low from (${pairs}) pairs`;
  const halved = sql`select *, ${upperHalf(raw('quotient'))} as quotient_up, quotient - ${upperHalf(raw('quotient'))} as quotient_low,
    ${upperHalf(raw('n'))} as n_up, n - ${upperHalf(raw('n'))} as n_low from (${squared}) squared`;
  const errors = sql`select *, ${productError('sum', 'sum', 'square')} + 2 * sum * sum_rest as error,
    square - back - ${productError('quotient', 'n', 'back')} as remainder from (${halved}) halved`;
  const divisor = spread === 'sample' ? raw('(n - 1)') : raw('n');
  return sql`select g, sum / n as mean, case when ${divisor} >= 1 then
    sqrt(greatest(0, squares - quotient + (squares_rest - (remainder + error) / n)) / ${divisor}) end as deviation
    from (${errors}) errors`;
}
