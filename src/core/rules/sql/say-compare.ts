import sql, { raw, type Sql } from 'sql-template-tag';
import { itemAt } from '../../values/item-at';
import { readDate } from '../../values/dates/read-date';
import { foldText } from '../../values/fold-text';
import { operandsOf, type CompareWhen } from '../kinds/compare';
import { isProblem, type FieldOperand, type Operand, type Problem } from '../terms';
import type { LinkedColumn } from './linked-table';
import { where, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** An operand beside a column: both sides in one type of SQL; null where they are never compared. */
interface Sides {
  readonly left: Sql;
  readonly right: Sql;
}

/** The comparison of a cell's value with one operand, or a low and a high one. */
export const sayCompare: Says<CompareWhen> = (when, context, read) => {
  const operands = operandsOf(when);
  const said = new Map<LinkedColumn, Sql | null>();
  for (const column of read) {
    const sides: (Sides | null)[] = [];
    for (const operand of operands) {
      const side = sidesOf(column, operand, { when, context });
      if (side && isProblem(side)) return side;
      sides.push(side);
    }
    const known = sides.filter((side) => side !== null);
    said.set(column, known.length === operands.length ? comparison(when.is, known) : null);
  }
  return (column) => where(said.get(column) ?? null);
};

const SIGNS = { '=': '=', '!=': '<>', '<': '<', '<=': '<=', '>': '>', '>=': '>=' } as const;

function comparison(is: CompareWhen['is'], sides: readonly Sides[]): Sql {
  const { left, right } = itemAt(sides, 0);
  if (is === 'between' || is === 'outside') {
    const within = sql`${left} between symmetric ${right} and ${itemAt(sides, 1).right}`;
    return is === 'between' ? within : sql`not (${within})`;
  }
  return sql`${left} ${raw(SIGNS[is])} ${right}`;
}

interface SidesOptions {
  readonly when: CompareWhen;
  readonly context: SqlContext;
}

function sidesOf(column: LinkedColumn, operand: Operand, { when, context }: SidesOptions): Sides | Problem | null {
  const { values } = context;
  const sized = (number: Sql): Sql => (when.magnitude ? sql`abs(${number})` : number);
  if (typeof operand === 'object' && !('field' in operand))
    return unsaid('cell' in operand ? 'a cell of a linked table has no address' : 'a limit that is a formula');
  const [number, serial] = [values.number(column), values.serial(column)];
  if (typeof operand === 'object') return besideField(column, operand, { when, context });
  if (typeof operand === 'number') return number && { left: sized(number), right: sized(sql`${operand}::float8`) };
  if (typeof operand === 'boolean') {
    const logical = values.logical(column);
    return logical && { left: logical, right: sql`${operand}::boolean` };
  }
  if (serial) {
    const day = readDate(operand.trim());
    return day === undefined ? null : { left: serial, right: sql`${day}::float8` };
  }
  const folded = column.type === 'text' ? values.folded(column) : null;
  return folded && { left: folded, right: sql`(${foldText(operand)}::text collate "C")` };
}

/** Another column of the row, scaled and shifted: only a number or a date has a multiple. */
function besideField(
  column: LinkedColumn,
  operand: FieldOperand,
  { when, context }: SidesOptions,
): Sides | Problem | null {
  const { values } = context;
  const other = context.column(operand.field);
  if (isProblem(other)) return other;
  const { times = 1, plus = 0 } = operand;
  const isScaled = operand.times !== undefined || operand.plus !== undefined;
  const scaled = (amount: Sql): Sql => sql`(${amount} * ${times}::float8 + ${plus}::float8)`;
  const [number, otherNumber] = [values.number(column), values.number(other)];
  if (number && otherNumber) {
    const right = scaled(otherNumber);
    return when.magnitude ? { left: sql`abs(${number})`, right: sql`abs(${right})` } : { left: number, right };
  }
  const [serial, otherSerial] = [values.serial(column), values.serial(other)];
  if (serial && otherSerial) return { left: serial, right: scaled(otherSerial) };
  if (serial && other.type === 'text' && !isScaled)
    return unsaid(`the dates of “${column.name}” cannot be compared with the texts of “${other.name}”`);
  if (isScaled) return null;
  if (column.type === 'text' && other.type === 'text') {
    const [left, right] = [values.folded(column), values.folded(other)];
    return left && right && { left, right };
  }
  const [logical, otherLogical] = [values.logical(column), values.logical(other)];
  return logical && otherLogical && { left: logical, right: otherLogical };
}
