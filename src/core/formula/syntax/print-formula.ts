import { columnLetters } from '../../sheet/address';
import { numberText } from '../../values/number-text';
import type { ErrorWord } from '../../values/cell-value';
import {
  isKept,
  type BinaryOperator,
  type CellRef,
  type FormulaNode,
  type KeptRef,
  type NodeOf,
  type ReferenceNode,
} from './formula-tree';

/** How a language of formulas writes what is written in several ways. */
export interface FormulaDialect {
  readonly reference: (node: ReferenceNode) => string;
  readonly name: (node: NodeOf<'name'>) => string;
  readonly error: (word: ErrorWord) => string;
  readonly operator: (operator: BinaryOperator) => string;
  /** The name before the parenthesis of a call. */
  readonly called: (name: string) => string;
  /** An argument, of which `text` is as it is written elsewhere. */
  readonly argument: (node: FormulaNode, text: string) => string;
  readonly betweenArguments: string;
  /** Between the columns and between the rows of an inline array. */
  readonly betweenColumns: string;
  readonly betweenRows: string;
}

/** OpenFormula (ISO/IEC 26300-2) with plain references. */
const OURS: FormulaDialect = {
  reference: referenceText,
  name: ({ quoted, name }) => (quoted ? quotedName(name) : name),
  error: (word) => word,
  operator: (operator) => operator,
  called: (name) => name,
  argument: (_, text) => text,
  betweenArguments: ';',
  betweenColumns: ';',
  betweenRows: '|',
};

/**
 * A tree as formula text, with its `=`: reading it gives the same tree again. `dialect` is what is written otherwise
 * than here.
 */
export function printFormula(tree: FormulaNode, dialect: Partial<FormulaDialect> = {}): string {
  const to = { ...OURS, ...dialect };
  const print = (node: FormulaNode): string => {
    switch (node.kind) {
      case 'number':
        return numberText(node.value);
      case 'text':
        return `"${node.value.replaceAll('"', '""')}"`;
      case 'logical':
        return node.value ? 'TRUE' : 'FALSE';
      case 'error':
        return to.error(node.word);
      case 'reference':
        return to.reference(node);
      case 'name':
        return to.name(node);
      case 'array':
        return `{${node.rows.map((row) => row.map(print).join(to.betweenColumns)).join(to.betweenRows)}}`;
      case 'prefix':
        return node.operator + print(node.operand);
      case 'percent':
        return `${print(node.operand)}%`;
      case 'binary':
        return print(node.left) + to.operator(node.operator) + print(node.right);
      case 'call':
        return `${to.called(node.name)}(${node.args.map((arg) => to.argument(arg, print(arg))).join(to.betweenArguments)})`;
      case 'group':
        return `(${print(node.inner)})`;
      case 'missing':
        return '';
    }
  };
  return `=${print(tree)}`;
}

export const quotedName = (name: string): string => `'${name.replaceAll("'", "''")}'`;

/** A reference as it is written: `B4`, `$B$4:C9`, `B:B`, `$'Sampling kit'.B4`. */
export function referenceText({ sheet, ends }: ReferenceNode): string {
  return (
    (sheet === null ? '' : `$${quotedName(sheet)}.`) +
    ends.map((end) => (isKept(end) ? keptText(end) : cornerText(end))).join(':')
  );
}

const mark = (absolute: boolean): string => (absolute ? '$' : '');

/** A corner as it is written. */
export function cornerText({ column, row }: CellRef): string {
  return (
    (column ? mark(column.absolute) + columnLetters(column.at) : '') + (row ? mark(row.absolute) + (row.at + 1) : '')
  );
}

/** A corner as a sheet keeps it. */
export function keptText({ field, row, isLabel }: KeptRef): string {
  const rowPart =
    row === 'records'
      ? '~*'
      : row === 'same'
        ? isLabel
          ? '~@'
          : ''
        : typeof row === 'string'
          ? '~'
          : `~${mark(row.absolute)}${row.id}`;
  return `⟦${field ? mark(field.absolute) + field.id : ''}${rowPart}⟧`;
}
