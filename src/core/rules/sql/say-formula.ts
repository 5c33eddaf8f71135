import sql, { join, raw, type Sql } from 'sql-template-tag';
import { isKept, type FormulaNode, type NodeOf, type ReferenceNode } from '../../formula/syntax/formula-tree';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { parseAddress } from '../../sheet/address';
import type { FormulaWhen } from '../kinds/formula';
import { isProblem } from '../terms';
import {
  any,
  asLogical,
  asNumber,
  compared,
  never,
  reckoned,
  SIGNS,
  UnsaidPart,
  type FormulaValue,
  type Sign,
} from './formula-value';
import { columnAtLetter, columnByLabel, columnOf, letterOf, type LinkedColumn } from './linked-table';
import { where, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** The position of the first record: the header is above it. */
const FIRST_RECORD = 1;

/**
 * A formula over cells of its own row: references, names of columns, numbers, texts, comparisons, the four operations,
 * AND, OR, NOT, IF, ABS and the tests of types. Others are not said.
 */
export const sayFormula: Says<FormulaWhen> = (when, context, read) => {
  const { tree, diagnostics } = parseFormula(when.formula);
  if (diagnostics.length) return unsaid('a formula that cannot be read');
  const { table } = context;
  const first = Math.min(...read.map((column) => letterOf(table, column)));
  const writtenAt = (when.at === undefined ? undefined : parseAddress(when.at)) ?? {
    column: first,
    position: FIRST_RECORD,
  };
  try {
    const said = new Map(
      read.map((column) => {
        const offset = letterOf(table, column) - writtenAt.column;
        return [column, holds(new FormulaSayer(context, { offset, position: writtenAt.position }).say(tree))];
      }),
    );
    return (column) => where(said.get(column) ?? null);
  } catch (error) {
    if (error instanceof UnsaidPart) return unsaid(error.message);
    throw error;
  }
};

/** A formula matches where it gives TRUE, or a number other than 0. */
function holds(value: FormulaValue): Sql | null {
  if (value.type === 'text') return null;
  const isNot = any(value.isBlank, value.isError);
  return isNot ? sql`(not ${isNot} and ${asLogical(value)})` : asLogical(value);
}

class FormulaSayer {
  constructor(
    private readonly context: SqlContext,
    /** How far right of where it was written the formula is evaluated, and the row in which it was written. */
    private readonly at: { readonly offset: number; readonly position: number },
  ) {}

  say(node: FormulaNode): FormulaValue {
    switch (node.kind) {
      case 'number':
        return plain('number', sql`${node.value}::float8`);
      case 'text':
        return plain('text', sql`${node.value}::text`);
      case 'logical':
        return plain('logical', raw(String(node.value)));
      case 'group':
        return this.say(node.inner);
      case 'reference':
        return this.cell(this.columnAt(node));
      case 'name':
        return this.named(node.name);
      case 'prefix': {
        const operand = this.say(node.operand);
        return node.operator === '+' ? operand : ofNumber(operand, sql`(-${asNumber(operand)})`);
      }
      case 'percent':
        return reckoned(this.say(node.operand), plain('number', sql`100::float8`), '/');
      case 'binary':
        return this.binary(node);
      case 'call':
        return this.call(node);
      default:
        throw new UnsaidPart('a part of its formula');
    }
  }

  private binary({ operator, left, right }: NodeOf<'binary'>): FormulaValue {
    if (isSign(operator)) return compared(this.say(left), this.say(right), operator);
    if (operator === '+' || operator === '-' || operator === '*' || operator === '/')
      return reckoned(this.say(left), this.say(right), operator);
    throw new UnsaidPart(`“${operator}” in a formula`);
  }

  /** The column of a reference to one cell of the row in which the formula is evaluated. */
  private columnAt({ sheet, ends }: ReferenceNode): LinkedColumn {
    const [end, other] = ends;
    const isOwn = end && !other && sheet === null && !isKept(end) && end.row?.absolute === false;
    if (!isOwn || end.row?.at !== this.at.position || !end.column)
      throw new UnsaidPart('cells of other rows than its own in a formula');
    const { at, absolute } = end.column;
    const column = columnAtLetter(this.context.table, absolute ? at : at + this.at.offset);
    if (!column) throw new UnsaidPart('a cell beyond the columns of the table in a formula');
    return column;
  }

  private named(name: string): FormulaValue {
    const column = this.context.column(columnByLabel(this.context.table)(name));
    if (isProblem(column)) throw new UnsaidPart(`the name “${name}” in a formula`);
    return this.cell(column);
  }

  private cell(column: LinkedColumn): FormulaValue {
    const { values } = this.context;
    const isBlank = values.isBlank(column);
    const isError =
      column.type === 'number' || column.type === 'day' || column.type === 'moment' ? values.isError(column) : null;
    const amount = values.amount(column);
    if (amount) return { type: 'number', value: amount, isBlank, isError };
    const held = columnOf(column.name);
    if (column.type === 'logical') return { type: 'logical', value: held, isBlank, isError };
    return { type: 'text', value: sql`(case when not ${isBlank} then ${held}::text end)`, isBlank, isError };
  }

  private call({ name, args }: NodeOf<'call'>): FormulaValue {
    const given = (at: number): FormulaNode => {
      const node = args[at];
      if (!node) throw new UnsaidPart(`${name} without all that it takes`);
      return node;
    };
    const arg = (at: number): FormulaValue => this.say(given(at));
    switch (name) {
      case 'TRUE':
      case 'FALSE':
        return plain('logical', raw(name.toLowerCase()));
      case 'AND':
      case 'OR':
        return this.joined(args, name === 'AND' ? ' and ' : ' or ');
      case 'NOT': {
        const value = arg(0);
        return { type: 'logical', value: sql`(not ${asLogical(value)})`, isBlank: null, isError: value.isError };
      }
      case 'IF':
        return this.choice(arg(0), arg(1), args.length > 2 ? arg(2) : plain('logical', never));
      case 'ABS':
        return ofNumber(arg(0), sql`abs(${asNumber(arg(0))})`);
      case 'ISBLANK':
        return tested(arg(0).isBlank ?? never);
      case 'ISERROR':
        return tested(arg(0).isError ?? never);
      case 'ISNUMBER':
      case 'ISTEXT':
      case 'ISLOGICAL': {
        const value = arg(0);
        if (value.type !== TESTED[name]) return tested(never);
        return tested(sql`(not ${any(value.isBlank, value.isError) ?? never})`);
      }
      default:
        throw new UnsaidPart(`${name} in a formula`);
    }
  }

  /** All or any of several conditions. Cells by themselves are passed over where they are none: that is not said. */
  private joined(args: readonly FormulaNode[], separator: ' and ' | ' or '): FormulaValue {
    const values = args.map((node) => this.say(node));
    if (values.length === 0 || values.some(({ isBlank }) => isBlank !== null))
      throw new UnsaidPart('AND and OR of cells by themselves');
    return {
      type: 'logical',
      value: sql`(${join(values.map(asLogical), separator)})`,
      isBlank: null,
      isError: any(...values.map(({ isError }) => isError)),
    };
  }

  private choice(condition: FormulaValue, then: FormulaValue, otherwise: FormulaValue): FormulaValue {
    if (then.type !== otherwise.type) throw new UnsaidPart('IF with two types of values');
    const test = asLogical(condition);
    const pick = (one: Sql, other: Sql): Sql => sql`(case when ${test} then ${one} else ${other} end)`;
    const either = (one: Sql | null, other: Sql | null): Sql | null =>
      one || other ? pick(one ?? never, other ?? never) : null;
    return {
      type: then.type,
      value: pick(then.value, otherwise.value),
      isBlank: either(then.isBlank, otherwise.isBlank),
      isError: any(condition.isError, either(then.isError, otherwise.isError)),
    };
  }
}

const TESTED = { ISNUMBER: 'number', ISTEXT: 'text', ISLOGICAL: 'logical' } as const;

const isSign = (operator: string): operator is Sign => Object.hasOwn(SIGNS, operator);

const plain = (type: FormulaValue['type'], value: Sql): FormulaValue => ({ type, value, isBlank: null, isError: null });

const tested = (value: Sql): FormulaValue => plain('logical', value);

const ofNumber = ({ isError }: FormulaValue, value: Sql): FormulaValue => ({
  type: 'number',
  value,
  isBlank: null,
  isError,
});
