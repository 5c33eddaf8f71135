import { parseFormula } from './parse-formula';
import { isKept, partsOf, type CellRef, type Coordinate, type FormulaNode, type ReferenceNode } from './formula-tree';
import { referenceText } from './print-formula';

/** All references of a tree, in order of writing. */
export function referencesOf(tree: FormulaNode): ReferenceNode[] {
  return tree.kind === 'reference' ? [tree] : partsOf(tree).flatMap(referencesOf);
}

/**
 * The formula with each reference replaced by other text, and everything else as it was typed. One that cannot be read
 * stays as it is.
 */
export function rewriteReferences(formula: string, replace: (node: ReferenceNode) => string): string {
  const { tree, diagnostics } = parseFormula(formula);
  if (diagnostics.length) return formula;
  let rewritten = '';
  let at = 0;
  for (const node of referencesOf(tree)) {
    rewritten += formula.slice(at, node.from) + replace(node);
    at = node.to;
  }
  return rewritten + formula.slice(at);
}

/**
 * The formula as it reads a number of columns to the right and rows down: relative references move along, absolute ones
 * stay. Off the sheet they become `#REF!`.
 */
export function shiftFormula(formula: string, columns: number, rows: number): string {
  return rewriteReferences(formula, (node) => {
    const ends = node.ends.map((end) => (isKept(end) ? end : shiftRef(end, columns, rows)));
    return ends.every((end) => end !== undefined) ? referenceText({ ...node, ends }) : '#REF!';
  });
}

/** The reference moved, or undefined where that is off the sheet. */
export function shiftRef({ column, row }: CellRef, columns: number, rows: number): CellRef | undefined {
  const moved = { column: shift(column, columns), row: shift(row, rows) };
  return (moved.column && moved.column.at < 0) || (moved.row && moved.row.at < 0) ? undefined : moved;
}

const shift = (coordinate: Coordinate | null, by: number): Coordinate | null =>
  coordinate && !coordinate.absolute ? { at: coordinate.at + by, absolute: false } : coordinate;
