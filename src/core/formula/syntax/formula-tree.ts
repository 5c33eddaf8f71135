import type { ErrorWord } from '../../values/cell-value';

/** Where in the formula a part stands, in UTF-16 code units from its `=`; `to` is past the end. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** One coordinate of a reference: counted from 0, `$` makes it absolute. */
export interface Coordinate {
  readonly at: number;
  readonly absolute: boolean;
}

/** A corner as written: a whole column has no row, a whole row no column. */
export interface CellRef {
  readonly column: Coordinate | null;
  readonly row: Coordinate | null;
}

/**
 * One end of a reference as it is kept in a sheet: by the ids of field and row, so that it follows them wherever they go.
 * No row means the row of the formula itself (`same`), every row (`all`) or all rows of records (`records`); no field means every field.
 */
export interface KeptRef {
  readonly field: { readonly id: string; readonly absolute: boolean } | null;
  readonly row: { readonly id: string; readonly absolute: boolean } | 'same' | 'all' | 'records';
  /** True where it was written as the field's label, and is to be shown so. */
  readonly isLabel?: boolean;
}

/** A reference: one cell, or a range between two corners. */
export type ReferenceNode = Span & { readonly kind: 'reference'; readonly sheet: string | null; readonly ends: readonly (CellRef | KeptRef)[] };

export type BinaryOperator = ':' | '!' | '~' | '^' | '*' | '/' | '+' | '-' | '&' | '=' | '<>' | '<' | '<=' | '>' | '>=';

export type FormulaNode =
  | (Span & { readonly kind: 'number'; readonly value: number })
  | (Span & { readonly kind: 'text'; readonly value: string })
  | (Span & { readonly kind: 'logical'; readonly value: boolean })
  | (Span & { readonly kind: 'error'; readonly word: ErrorWord })
  | ReferenceNode
  | (Span & { readonly kind: 'name'; readonly name: string; readonly quoted: boolean })
  | (Span & { readonly kind: 'array'; readonly rows: readonly (readonly FormulaNode[])[] })
  | (Span & { readonly kind: 'prefix'; readonly operator: '-' | '+'; readonly operand: FormulaNode })
  | (Span & { readonly kind: 'percent'; readonly operand: FormulaNode })
  | (Span & { readonly kind: 'binary'; readonly operator: BinaryOperator; readonly left: FormulaNode; readonly right: FormulaNode })
  | (Span & { readonly kind: 'call'; readonly name: string; readonly args: readonly FormulaNode[] })
  | (Span & { readonly kind: 'group'; readonly inner: FormulaNode })
  /** An argument that was left out, or what could not be read. */
  | (Span & { readonly kind: 'missing' });

export type NodeOf<K extends FormulaNode['kind']> = Extract<FormulaNode, { kind: K }>;

/** What is wrong with a formula, and where. */
export interface Diagnostic extends Span {
  readonly code: 'too-long' | 'too-deep' | 'unexpected' | 'unknown-function' | 'unknown-name' | 'wrong-arguments';
  readonly message: string;
}

export const isKept = (ref: CellRef | KeptRef): ref is KeptRef => 'field' in ref;

/** The parts of a node, in order of writing. */
export function partsOf(node: FormulaNode): readonly FormulaNode[] {
  switch (node.kind) {
    case 'array':
      return node.rows.flat();
    case 'prefix':
    case 'percent':
      return [node.operand];
    case 'binary':
      return [node.left, node.right];
    case 'call':
      return node.args;
    case 'group':
      return [node.inner];
    default:
      return [];
  }
}
