import { itemAt, lastItem } from '../values/item-at';
/** Letters of a column, A for 0, AA for 26. */
export function columnLetters(column: number): string {
  let letters = '';
  for (let rest = column + 1; rest > 0; rest = Math.floor((rest - 1) / 26))
    letters = String.fromCharCode(65 + ((rest - 1) % 26)) + letters;
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

/** Whether a cell lies in a range. */
export const holdsCell = ({ left, top, right, bottom }: CellRange, column: number, position: number): boolean =>
  column >= left && column <= right && position >= top && position <= bottom;

/** The last column and row that an address can name: whole rows and columns reach as far. */
const LAST_COLUMN = columnNumber('ZZZ');
const LAST_ROW = 9_999_998;

export const isWholeColumns = ({ top, bottom }: CellRange): boolean => top === 0 && bottom === LAST_ROW;
export const isWholeRows = ({ left, right }: CellRange): boolean => left === 0 && right === LAST_COLUMN;

/**
 * Two corners of a range, such as B2:C9; of one cell, its address; of whole columns or rows, such as B:C or 2:3, these.
 */
export function writeArea(range: CellRange): string {
  const { left, top, right, bottom } = range;
  if (isWholeColumns(range)) return `${columnLetters(left)}:${columnLetters(right)}`;
  if (isWholeRows(range)) return `${top + 1}:${bottom + 1}`;
  const first = cellAddress(left, top);
  return left === right && top === bottom ? first : `${first}:${cellAddress(right, bottom)}`;
}

const ADDRESS = /^\$?([A-Za-z]{1,3})\$?([1-9]\d{0,6})$/;

/** Reads an A1 address, anchors and case aside; undefined where it is none. */
export function parseAddress(text: string): { column: number; position: number } | undefined {
  const match = ADDRESS.exec(text.trim());
  if (!match) return undefined;
  return { column: columnNumber(itemAt(match, 1)), position: Number(match[2]) - 1 };
}

/** Replaces an address whose cell was removed. */
export const GONE = '#REF!';

/**
 * Reads A1 ranges separated by spaces, whole columns (`B:C`) and rows (`2:3`) too. The ends of a range may come in
 * either order. Undefined where a part is not a range.
 */
export function parseRanges(text: string): CellRange[] | undefined {
  const ranges = text.trim().split(/\s+/).map(parseRange);
  return ranges.every((range) => range !== undefined) ? ranges : undefined;
}

const COLUMNS = /^\$?([A-Za-z]{1,3}):\$?([A-Za-z]{1,3})$/;
const ROWS = /^\$?([1-9]\d{0,6}):\$?([1-9]\d{0,6})$/;

function parseRange(text: string): CellRange | undefined {
  const columns = COLUMNS.exec(text);
  if (columns) return between([columnNumber(itemAt(columns, 1)), 0], [columnNumber(itemAt(columns, 2)), LAST_ROW]);
  const rows = ROWS.exec(text);
  if (rows) return between([0, Number(rows[1]) - 1], [LAST_COLUMN, Number(rows[2]) - 1]);
  const ends = text.split(':');
  const [first, second] = [parseAddress(itemAt(ends, 0)), parseAddress(lastItem(ends))];
  if (ends.length > 2 || !first || !second) return undefined;
  return between([first.column, first.position], [second.column, second.position]);
}

const between = (
  [oneColumn, oneRow]: readonly [number, number],
  [column, row]: readonly [number, number],
): CellRange => ({
  left: Math.min(oneColumn, column),
  right: Math.max(oneColumn, column),
  top: Math.min(oneRow, row),
  bottom: Math.max(oneRow, row),
});
