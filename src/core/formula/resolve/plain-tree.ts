import type { Sheet } from '../../sheet/sheet';
import { isKept, type CellRef, type FormulaNode, type KeptRef, type ReferenceNode } from '../syntax/formula-tree';
import { parseFormula } from '../syntax/parse-formula';
import { resolveNames } from './resolve-names';

/**
 * A formula as a tree whose references, labels too, are addresses of the present layout, which other programs can read.
 * `position` is the row that it is written for. Named ranges stay names. Undefined where it cannot be read or refers to
 * a removed cell.
 */
export function plainTree(text: string, sheet: Sheet, position: number): FormulaNode | undefined {
  const { tree, diagnostics } = parseFormula(text);
  if (diagnostics.length) return undefined;
  // A name that is a range wins over a label, and is left as it is.
  const hidden = { sheet, findName: () => undefined };
  const named = mapNodes(tree, (node) =>
    node.kind === 'name' && sheet.findName(node.name)
      ? { ...node, kind: 'call', name: `${NAMED}${node.name}`, args: [] }
      : node,
  );
  const resolved = resolveNames(named, hidden);
  if (resolved.diagnostics.length) return undefined;
  let isWhole = true;
  const plain = mapNodes(resolved.tree, (node) => {
    if (node.kind === 'call' && node.name.startsWith(NAMED))
      return { kind: 'name', name: node.name.slice(NAMED.length), quoted: false, from: node.from, to: node.to };
    if (node.kind !== 'reference') return node;
    const ends = plainEnds(node, sheet, position);
    if (!ends) isWhole = false;
    return ends ? { ...node, ends } : node;
  });
  return isWhole ? plain : undefined;
}

/** Stands before a name while labels are looked up. */
const NAMED = '\u0001';

/** The tree with each node replaced, from the inside out. */
function mapNodes(tree: FormulaNode, replace: (node: FormulaNode) => FormulaNode): FormulaNode {
  const inside = (node: FormulaNode) => mapNodes(node, replace);
  switch (tree.kind) {
    case 'prefix':
    case 'percent':
      return replace({ ...tree, operand: inside(tree.operand) });
    case 'binary':
      return replace({ ...tree, left: inside(tree.left), right: inside(tree.right) });
    case 'call':
      return replace({ ...tree, args: tree.args.map(inside) });
    case 'group':
      return replace({ ...tree, inner: inside(tree.inner) });
    default:
      return replace(tree);
  }
}

function plainEnds({ ends }: ReferenceNode, sheet: Sheet, position: number): readonly CellRef[] | undefined {
  const [only] = ends;
  if (ends.length === 1 && only && isKept(only) && only.row === 'records') {
    const column = columnOf(only, sheet);
    const { first, last } = sheet.recordSpan();
    if (!column || last < first) return undefined;
    const corner = (at: number): CellRef => ({ column: { ...column, absolute: true }, row: { at, absolute: true } });
    return [corner(first), corner(last)];
  }
  const plain = ends.map((end) => (isKept(end) ? plainEnd(end, sheet, position) : end));
  return plain.every((end) => end !== undefined) ? plain : undefined;
}

function plainEnd(end: KeptRef, sheet: Sheet, position: number): CellRef | undefined {
  const column = columnOf(end, sheet);
  if (column === undefined) return undefined;
  if (typeof end.row === 'string')
    return { column, row: end.row === 'same' ? { at: position, absolute: false } : null };
  const slot = sheet.findSlot(end.row.id);
  return slot === undefined ? undefined : { column, row: { at: sheet.positionOf(slot), absolute: end.row.absolute } };
}

/** Null for every column; undefined where the field is gone. */
function columnOf({ field }: KeptRef, sheet: Sheet): CellRef['column'] | undefined {
  if (!field) return null;
  const at = sheet.findColumn(field.id);
  return at === undefined ? undefined : { at, absolute: field.absolute };
}
