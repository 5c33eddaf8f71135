import type { ErrorWord } from '../../values/cell-value';

/** Where in the formula a part stands, in UTF-16 code units from its `=`; `to` is past the end. */
export interface TextSpan {
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

/** A corner that is one cell. */
export interface FullCellRef extends CellRef {
  readonly column: Coordinate;
  readonly row: Coordinate;
}

/**
 * One end of a reference as it is kept in a sheet: by the ids of field and row, so that it follows them wherever they
 * go. No row means the row of the formula itself (`same`), every row (`all`) or all rows of records (`records`); no
 * field means every field.
 */
export interface KeptRef {
  readonly field: { readonly id: string; readonly absolute: boolean } | null;
  readonly row: { readonly id: string; readonly absolute: boolean } | 'same' | 'all' | 'records';
  /** True where it was written as the field's label, and is to be shown so. */
  readonly isLabel?: boolean;
}

/** A reference: one cell, or a range between two corners. */
export type ReferenceNode = TextSpan & {
  readonly kind: 'reference';
  readonly sheet: string | null;
  readonly ends: readonly (CellRef | KeptRef)[];
};

export type BinaryOperator = ':' | '!' | '~' | '^' | '*' | '/' | '+' | '-' | '&' | '=' | '<>' | '<' | '<=' | '>' | '>=';

export type FormulaNode =
  | (TextSpan & { readonly kind: 'number'; readonly value: number })
  | (TextSpan & { readonly kind: 'text'; readonly value: string })
  | (TextSpan & { readonly kind: 'logical'; readonly value: boolean })
  | (TextSpan & { readonly kind: 'error'; readonly word: ErrorWord })
  | ReferenceNode
  | (TextSpan & { readonly kind: 'name'; readonly name: string; readonly quoted: boolean })
  | (TextSpan & { readonly kind: 'array'; readonly rows: readonly (readonly FormulaNode[])[] })
  | (TextSpan & { readonly kind: 'prefix'; readonly operator: '-' | '+'; readonly operand: FormulaNode })
  | (TextSpan & { readonly kind: 'percent'; readonly operand: FormulaNode })
  | (TextSpan & {
      readonly kind: 'binary';
      readonly operator: BinaryOperator;
      readonly left: FormulaNode;
      readonly right: FormulaNode;
    })
  | (TextSpan & { readonly kind: 'call'; readonly name: string; readonly args: readonly FormulaNode[] })
  | (TextSpan & { readonly kind: 'group'; readonly inner: FormulaNode })
  /** An argument that was left out, or what could not be read. */
  | (TextSpan & { readonly kind: 'missing' });

export type NodeOf<K extends FormulaNode['kind']> = Extract<FormulaNode, { kind: K }>;

/** A mistake in a formula, and its place. */
export interface Diagnostic extends TextSpan {
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
