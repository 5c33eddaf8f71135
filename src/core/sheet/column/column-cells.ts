/** Codes of cells on their way into a column: a blank; the next of its numbers; the first of its inputs. */
export const BLANK_CELL = 0;
export const PLAIN_CELL = 1;
export const FIRST_INPUT = 2;

/** Distinct contents from which on further numbers are kept as numbers alone: few different ones share what rules find. */
export const MANY_CONTENTS = 1000;

/** The cells of a column as arrays: loading them is copying them. */
export interface ColumnCells {
  /** By slot: BLANK_CELL, PLAIN_CELL or FIRST_INPUT plus the place of an input. */
  readonly codes: Uint8Array | Uint16Array | Uint32Array;
  /** The distinct inputs. */
  readonly inputs: readonly string[];
  /** The numbers that were typed in their shortest form, of all cells with PLAIN_CELL from the first to the last. */
  readonly numbers: Float64Array;
}

/** The number of an input that is a number in its shortest form, so that the number gives the input; NaN for others. */
export function plainNumber(input: string): number {
  const number = Number(input);
  return Number.isFinite(number) && String(number) === input ? number : NaN;
}
