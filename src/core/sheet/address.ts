/** Letters of a column, A for 0, AA for 26. */
export function columnLetters(column: number): string {
  let letters = '';
  for (let rest = column + 1; rest > 0; rest = Math.floor((rest - 1) / 26)) letters = String.fromCharCode(65 + ((rest - 1) % 26)) + letters;
  return letters;
}

/** Column of some letters, 0 for A. */
export const columnNumber = (letters: string): number =>
  [...letters.toUpperCase()].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;

/** A1 address of a cell; both indexes count from 0. */
export const cellAddress = (column: number, position: number): string => columnLetters(column) + (position + 1);

export interface CellRange {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Two corners of a range, such as B2:C9; of one cell, its address. */
export function writeArea({ left, top, right, bottom }: CellRange): string {
  const first = cellAddress(left, top);
  return left === right && top === bottom ? first : `${first}:${cellAddress(right, bottom)}`;
}

const ADDRESS = /^\$?([A-Za-z]{1,3})\$?([1-9]\d{0,6})$/;

/** Reads an A1 address, anchors and case aside; undefined where it is none. */
export function parseAddress(text: string): { column: number; position: number } | undefined {
  const match = ADDRESS.exec(text.trim());
  if (!match) return undefined;
  return { column: columnNumber(match[1]!), position: Number(match[2]) - 1 };
}

/** Stands in the place of an address whose cell was removed. */
export const GONE = '#REF!';

/** Reads one or more A1 ranges separated by spaces, each end either way round; undefined where a part is not a range. */
export function parseRanges(text: string): CellRange[] | undefined {
  const ranges = text.trim().split(/\s+/).map(parseRange);
  return ranges.every((range) => range !== undefined) ? ranges : undefined;
}

function parseRange(text: string): CellRange | undefined {
  const ends = text.split(':');
  const [first, second] = [parseAddress(ends[0]!), parseAddress(ends.at(-1)!)];
  if (ends.length > 2 || !first || !second) return undefined;
  return {
    left: Math.min(first.column, second.column),
    right: Math.max(first.column, second.column),
    top: Math.min(first.position, second.position),
    bottom: Math.max(first.position, second.position),
  };
}
