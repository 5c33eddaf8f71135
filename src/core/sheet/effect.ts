import type { Operation } from './change';

/** The effect of an operation, so that rules are evaluated again only where it matters. */
export type Effect =
  | { readonly kind: 'cell'; readonly column: number; readonly slot: number; readonly before: CellBefore }
  /** Rows, fields or parts were inserted, removed or moved: anything known by position is stale. */
  | { readonly kind: 'layout' }
  | { readonly kind: 'rules' };

export const LAYOUT: Effect = { kind: 'layout' };
export const RULES: Effect = { kind: 'rules' };

/** The cell's number (NaN for none) and tag before an edit, from which running statistics are corrected. */
export interface CellBefore {
  readonly number: number;
  readonly tag: number;
  readonly code: number;
}

export interface Applied {
  readonly effects: readonly Effect[];
  readonly inverse: readonly Operation[];
}
