import type { Column } from '../../sheet/column/column';
import { TAG } from '../../values/cell-value';
import { Area, AreaList, FormulaError, Matrix, SerialDate, isScalar, type Operand, type Scalar } from './formula-value';
import { positionAt, spend, spendMade, type EvalCursor } from './place';

/** The value of one cell as formulas see it. */
export function readCell(column: Column, slot: number): Scalar {
  switch (column.tags[slot]) {
    case TAG.number:
      return column.numberAt(slot);
    case TAG.date:
      return new SerialDate(column.numberAt(slot));
    case TAG.blank:
    case undefined:
      return column.hasEmptyText(slot) ? '' : null;
  }
  const value = column.valueAt(slot);
  return value.kind === 'text'
    ? value.text
    : value.kind === 'logical'
      ? value.logical
      : value.kind === 'error'
        ? FormulaError.of(value.error)
        : null;
}

/** The value of a cell by position; beyond the sheet there are blanks. */
export function readAt(area: Area, row: number, column: number): Scalar {
  const store = area.sheet.columns[area.left + column];
  const slot = area.sheet.order[area.top + row];
  return store && slot !== undefined ? readCell(store, slot) : null;
}

/** All values of an operand as a matrix, row by row. */
export function toMatrix(operand: Operand, place: EvalCursor): Matrix | FormulaError {
  if (operand instanceof Matrix) return operand;
  if (operand instanceof AreaList) return FormulaError.value;
  if (!(operand instanceof Area)) return new Matrix(1, 1, [operand]);
  spendMade(place, operand.rows * operand.columns);
  const values: Scalar[] = [];
  for (let row = 0; row < operand.rows; row++)
    for (let column = 0; column < operand.columns; column++) values.push(readAt(operand, row, column));
  return new Matrix(operand.rows, operand.columns, values);
}

/**
 * A scalar where one is wanted: of a range the cell in the formula's own row or column, of an array the first element.
 */
export function toScalar(operand: Operand, place: EvalCursor): Scalar {
  if (isScalar(operand)) return operand;
  if (operand instanceof Matrix) return operand.values[0] ?? null;
  if (operand instanceof AreaList)
    return operand.areas.length === 1 ? toScalar(operand.areas[0]!, place) : FormulaError.value;
  if (operand.rows === 1 && operand.columns === 1) return readAt(operand, 0, 0);
  const row = operand.rows === 1 ? 0 : positionAt(place) - operand.top;
  const column = operand.columns === 1 ? 0 : place.column - operand.left;
  const isInside = row >= 0 && row < operand.rows && column >= 0 && column < operand.columns;
  return isInside ? readAt(operand, row, column) : FormulaError.value;
}

/** Calls `visit` with every value of an operand, blanks included; stops early where it gives an error. */
export function forEachValue(
  operand: Operand,
  place: EvalCursor,
  visit: (value: Scalar) => FormulaError | void,
): FormulaError | undefined {
  if (operand instanceof AreaList) {
    for (const area of operand.areas) {
      const error = forEachValue(area, place, visit);
      if (error) return error;
    }
    return undefined;
  }
  if (!(operand instanceof Area)) {
    for (const value of operand instanceof Matrix ? operand.values : [operand]) {
      const error = visit(value);
      if (error) return error;
    }
    return undefined;
  }
  const { order, columns } = operand.sheet;
  const bottom = Math.min(operand.bottom, order.length - 1);
  const right = Math.min(operand.right, columns.length - 1);
  spend(place, Math.max(0, bottom - operand.top + 1) * Math.max(0, right - operand.left + 1));
  for (let position = operand.top; position <= bottom; position++)
    for (let column = operand.left; column <= right; column++) {
      const error = visit(readCell(columns[column]!, order[position]!));
      if (error) return error;
    }
  return undefined;
}
