import sql, { join, raw, type Sql } from 'sql-template-tag';
import { foldedCaseText } from './folded-text';

/**
 * A value of a formula in SQL. Its type is known beforehand, as each column has one. `value` is NULL only where it is blank
 * or an error; the conditions that say so are null where it never is.
 */
export interface FormulaValue {
  readonly type: 'number' | 'text' | 'logical';
  readonly value: Sql;
  readonly isBlank: Sql | null;
  readonly isError: Sql | null;
}

/** A part of a formula that SQL does not say exactly. */
export class UnsaidPart extends Error {}

/** The order of types: numbers before texts before logicals. */
const RANK = { number: 0, text: 1, logical: 2 } as const;
const NOTHING = { number: sql`0::float8`, text: sql`''::text`, logical: sql`false` } as const;

export const never = sql`false`;

/** Any of some conditions, of which null ones never hold. */
export function any(...conditions: readonly (Sql | null)[]): Sql | null {
  const known = conditions.filter((condition) => condition !== null);
  return known.length ? sql`(${join(known, ' or ')})` : null;
}

/** The value, or the nothing of its type where it is blank or an error. */
const filled = ({ type, value }: FormulaValue): Sql => sql`coalesce(${value}, ${NOTHING[type]})`;

/** A value as a number: a blank is 0, TRUE is 1. Throws an UnsaidPart for texts, which are read as numbers. */
export function asNumber(given: FormulaValue): Sql {
  if (given.type === 'number') return filled(given);
  if (given.type === 'logical') return sql`${filled(given)}::int::float8`;
  throw new UnsaidPart('a text that is reckoned with');
}

/** A value as a logical: a blank is FALSE, numbers but 0 are TRUE. */
export function asLogical(given: FormulaValue): Sql {
  if (given.type === 'logical') return filled(given);
  if (given.type === 'number') return sql`(${filled(given)} <> 0)`;
  throw new UnsaidPart('a text in the place of a condition');
}

export const SIGNS = { '=': '=', '<>': '<>', '<': '<', '<=': '<=', '>': '>', '>=': '>=' } as const;
export type Sign = keyof typeof SIGNS;

const holds = (order: number, sign: Sign): boolean =>
  ({ '=': order === 0, '<>': order !== 0, '<': order < 0, '<=': order <= 0, '>': order > 0, '>=': order >= 0 })[sign];

/** Two values of one type beside one another; texts without their case. */
function sideBySide(type: FormulaValue['type'], [left, right]: readonly [Sql, Sql], sign: Sign): Sql {
  const operator = raw(SIGNS[sign]);
  return type === 'text'
    ? sql`(${foldedCaseText(left)} ${operator} ${foldedCaseText(right)})`
    : sql`(${left} ${operator} ${right})`;
}

/** A comparison: numbers come before texts before logicals, and a blank is like the other's nothing. */
export function compared(left: FormulaValue, right: FormulaValue, sign: Sign): FormulaValue {
  const isError = any(left.isError, right.isError);
  if (left.type === right.type) {
    const value = sideBySide(left.type, [filled(left), filled(right)], sign);
    return { type: 'logical', value, isBlank: null, isError };
  }
  const cases = [
    ...(left.isBlank && right.isBlank
      ? [sql`when ${left.isBlank} and ${right.isBlank} then ${raw(String(holds(0, sign)))}`]
      : []),
    ...(left.isBlank
      ? [sql`when ${left.isBlank} then ${sideBySide(right.type, [NOTHING[right.type], filled(right)], sign)}`]
      : []),
    ...(right.isBlank
      ? [sql`when ${right.isBlank} then ${sideBySide(left.type, [filled(left), NOTHING[left.type]], sign)}`]
      : []),
  ];
  const apart = raw(String(holds(RANK[left.type] - RANK[right.type], sign)));
  const value = cases.length ? sql`(case ${join(cases, ' ')} else ${apart} end)` : apart;
  return { type: 'logical', value, isBlank: null, isError };
}

/** Numbers beyond these are not reckoned with: a database stops where a result leaves the doubles. */
const isReckonable = (number: Sql): Sql =>
  sql`(${number} = 0 or abs(${number}) between 1e-150::float8 and 1e150::float8)`;

/** An operation between two numbers; a division by 0 is an error. */
export function reckoned(left: FormulaValue, right: FormulaValue, operator: '+' | '-' | '*' | '/'): FormulaValue {
  const [one, other] = [asNumber(left), asNumber(right)];
  const isWithin = sql`(${isReckonable(one)} and ${isReckonable(other)})`;
  const isByZero = operator === '/' ? sql`${other} = 0` : null;
  const outside = any(sql`not ${isWithin}`, isByZero) ?? never;
  return {
    type: 'number',
    value: sql`(case when ${outside} then null else ${one} ${raw(operator)} ${other} end)`,
    isBlank: null,
    isError: any(left.isError, right.isError, outside),
  };
}
