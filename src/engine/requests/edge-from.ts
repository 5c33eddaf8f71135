import type { Sheet } from '../../core/sheet/sheet';

interface Steps {
  readonly column: number;
  readonly position: number;
  /** Where to: one of the two is 1 or -1, the other 0. */
  readonly columns: number;
  readonly rows: number;
}

/**
 * The edge of the data that way: the last filled cell of those that follow without a gap, else the next filled one,
 * else the last of the sheet.
 */
export function edgeFrom(
  sheet: Sheet,
  { column, position, columns, rows }: Steps,
): { column: number; position: number } {
  const isIn = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < sheet.fields.length && y < sheet.rowCount;
  const isFilled = (x: number, y: number): boolean => sheet.column(x).inputAt(sheet.slotAt(y)) !== '';
  let [x, y] = [column, position];
  if (!isIn(x + columns, y + rows)) return { column, position };
  const follows = isFilled(x, y) && isFilled(x + columns, y + rows);
  do {
    x += columns;
    y += rows;
  } while (isIn(x + columns, y + rows) && (follows ? isFilled(x + columns, y + rows) : !isFilled(x, y)));
  return { column: x, position: y };
}
