import { columnLetters } from '../sheet/address';
import { numberText } from '../values/number-text';
import { isKept, type CellRef, type FormulaNode, type KeptRef, type ReferenceNode } from './formula-tree';

/** A tree as formula text, with its `=`: reading it gives the same tree again. `reference` says how references are written; plainly by default. */
export function printFormula(tree: FormulaNode, reference: (node: ReferenceNode) => string = referenceText): string {
  const print = (node: FormulaNode): string => {
    switch (node.kind) {
      case 'number':
        return numberText(node.value);
      case 'text':
        return `"${node.value.replaceAll('"', '""')}"`;
      case 'logical':
        return node.value ? 'TRUE' : 'FALSE';
      case 'error':
        return node.word;
      case 'reference':
        return reference(node);
      case 'name':
        return node.quoted ? quotedName(node.name) : node.name;
      case 'array':
        return `{${node.rows.map((row) => row.map(print).join(';')).join('|')}}`;
      case 'prefix':
        return node.operator + print(node.operand);
      case 'percent':
        return `${print(node.operand)}%`;
      case 'binary':
        return print(node.left) + node.operator + print(node.right);
      case 'call':
        return `${node.name}(${node.args.map(print).join(';')})`;
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
  return (sheet === null ? '' : `$${quotedName(sheet)}.`) + ends.map((end) => (isKept(end) ? keptText(end) : cornerText(end))).join(':');
}

const mark = (absolute: boolean): string => (absolute ? '$' : '');

/** A corner as it is written. */
export function cornerText({ column, row }: CellRef): string {
  return (column ? mark(column.absolute) + columnLetters(column.at) : '') + (row ? mark(row.absolute) + (row.at + 1) : '');
}

/** A corner as a sheet keeps it. */
export function keptText({ field, row, isLabel }: KeptRef): string {
  const rowPart =
    row === 'records' ? '~*' : row === 'same' ? (isLabel ? '~@' : '') : typeof row === 'string' ? '~' : `~${mark(row.absolute)}${row.id}`;
  return `⟦${field ? mark(field.absolute) + field.id : ''}${rowPart}⟧`;
}
