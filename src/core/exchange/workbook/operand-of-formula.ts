import { isKept, type FormulaNode } from '../../formula/syntax/formula-tree';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { printFormula } from '../../formula/syntax/print-formula';
import type { Operand } from '../../rules/terms';
import { cellAddress } from '../../sheet/address';
import { unusableBecause } from './unusable-formula';

/**
 * A formula of a file as an operand: a constant, a cell that stays, or a formula; undefined where it cannot be used
 * here.
 */
export function operandOfFormula(text: string | undefined): Operand | undefined {
  if (text === undefined || unusableBecause(text) !== undefined) return undefined;
  const { tree } = parseFormula(text);
  const constant = constantOf(tree);
  if (constant !== undefined) return constant;
  const [end] = tree.kind === 'reference' && tree.ends.length === 1 ? tree.ends : [];
  if (end && !isKept(end) && end.column?.absolute && end.row?.absolute)
    return { cell: cellAddress(end.column.at, end.row.at) };
  return { formula: printFormula(tree) };
}

function constantOf(tree: FormulaNode): number | string | boolean | undefined {
  if (tree.kind === 'number' || tree.kind === 'text' || tree.kind === 'logical') return tree.value;
  if (tree.kind === 'prefix' && tree.operator === '-' && tree.operand.kind === 'number') return -tree.operand.value;
  if (tree.kind === 'call' && tree.args.length === 0 && (tree.name === 'TRUE' || tree.name === 'FALSE'))
    return tree.name === 'TRUE';
  return undefined;
}
