import { FormulaError, isScalar, Matrix, type Operand, type Scalar } from '../values/formula-value';
import type { Dyadic } from './operators';
import { spendMade, spendText, type EvalCursor } from '../values/place';
import { toMatrix } from '../values/read-cells';

/** Arrays and areas of several cells as a matrix, single values as they are. */
export function asArray(operand: Operand, place: EvalCursor): Scalar | Matrix {
  if (isScalar(operand)) return operand;
  const array = toMatrix(operand, place);
  return array instanceof Matrix && array.values.length === 1 ? array.values[0]! : array;
}

/** The element of an array, where one row or column is repeated. */
export function elementOf(operand: Scalar | Matrix, row: number, column: number): Scalar {
  if (!(operand instanceof Matrix)) return operand;
  const [r, c] = [operand.rows === 1 ? 0 : row, operand.columns === 1 ? 0 : column];
  return r < operand.rows && c < operand.columns ? operand.values[r * operand.columns + c]! : FormulaError.na;
}

/** An operation on each value of an array, or on a single one. */
export function mapped(operand: Operand, place: EvalCursor, compute: (value: Scalar) => Scalar): Operand {
  const array = asArray(operand, place);
  if (!(array instanceof Matrix)) return compute(array);
  spendMade(place, array.values.length);
  return new Matrix(array.rows, array.columns, array.values.map(compute));
}

/** An operation on the values that stand at the same place of two arrays. */
export function mappedPair(
  left: Operand,
  right: Operand,
  { place, dyadic }: { place: EvalCursor; dyadic: Dyadic },
): Operand {
  const [a, b] = [asArray(left, place), asArray(right, place)];
  if (!(a instanceof Matrix) && !(b instanceof Matrix)) return dyadic(a, b);
  const shapes = [a, b].filter((operand) => operand instanceof Matrix);
  const rows = Math.max(...shapes.map((shape) => shape.rows));
  const columns = Math.max(...shapes.map((shape) => shape.columns));
  spendMade(place, rows * columns);
  const values: Scalar[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [one, other] = [elementOf(a, row, column), elementOf(b, row, column)];
      spendText(place, one);
      spendText(place, other);
      values.push(dyadic(one, other));
    }
  return new Matrix(rows, columns, values);
}
