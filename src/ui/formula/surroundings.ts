import type { Surroundings } from '../../core/formula/syntax/typed-formula';
import type { SheetFrame } from '../../protocol/sheet-view';

/** The meanings of words of a formula in the open sheet. */
export const surroundingsOf = (frame: SheetFrame | null): Surroundings => ({
  labels: frame?.fields.map(({ label }) => label) ?? [],
  names: frame?.names ?? [],
  rowCount: frame?.rowCount ?? 0,
  firstRecord: frame?.frozenRows ?? 0,
});
