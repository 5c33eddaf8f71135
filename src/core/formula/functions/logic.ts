// Logical and information functions (ISO/IEC 26300-4, 6.13 and 6.15).
import { Area, FormulaError, SerialDate, toLogical, type Operand, type Scalar } from '../values/formula-value';
import type { EvalCursor } from '../values/place';
import { forEachValue, toScalar } from '../values/read-cells';
import { anything, define, later, logical, optional, several, type Thunk } from './function-spec';

/** All logicals of the arguments: texts and blanks in cells are skipped, an error anywhere is the result. */
function logicalsOf(operands: readonly { readonly operand: Operand }[], place: EvalCursor): boolean[] | FormulaError {
  const found: boolean[] = [];
  for (const { operand } of operands) {
    const isCells = operand instanceof Area;
    const error = forEachValue(operand, place, (value) => {
      if (isCells && (typeof value === 'string' || value === null)) return undefined;
      const converted = toLogical(value);
      if (typeof converted !== 'boolean') return converted;
      found.push(converted);
      return undefined;
    });
    if (error) return error;
  }
  return found.length ? found : FormulaError.value;
}

const overLogicals = (name: string, says: string, compute: (values: readonly boolean[]) => boolean) =>
  define({ name, says }, [several(anything('logicals'))], ([operands], place) => {
    const values = logicalsOf(operands, place);
    return values instanceof FormulaError ? values : compute(values);
  });

/** A test of one value, which may be an error. */
const test = (name: string, says: string, holds: (value: Scalar) => boolean) =>
  define({ name, says }, [later('value')], ([value], place) => holds(toScalar(value(), place)));

const isError = (value: Scalar): boolean => value instanceof FormulaError;

/** The value, unless it is an error that this catches. */
const instead = (name: string, says: string, catches: (error: Scalar) => boolean) =>
  define({ name, says }, [later('value'), later('otherwise')], ([value, otherwise], place) => {
    const operand = value();
    return catches(toScalar(operand, place)) ? otherwise() : operand;
  });

const TRUE_LATER: Thunk = () => true;
const FALSE_LATER: Thunk = () => false;

export const LOGIC = [
  overLogicals('AND', 'true where all are true', (values) => values.every(Boolean)),
  overLogicals('OR', 'true where any is true', (values) => values.some(Boolean)),
  overLogicals('XOR', 'true where an odd number of them is true', (values) => values.filter(Boolean).length % 2 === 1),
  define({ name: 'NOT', says: 'the opposite' }, [logical('logical')], ([value]) => !value),
  define({ name: 'TRUE', says: 'true' }, [], () => true),
  define({ name: 'FALSE', says: 'false' }, [], () => false),
  define(
    { name: 'IF', says: 'one value where a condition holds, another where it does not' },
    [logical('condition'), optional(later('then'), TRUE_LATER), optional(later('otherwise'), FALSE_LATER)],
    ([condition, then, otherwise]) => (condition ? then() : otherwise()),
  ),
  instead('IFERROR', 'the value, or another in place of an error', isError),
  instead('IFNA', 'the value, or another in place of #N/A', (value) => value === FormulaError.na),
  test('ISBLANK', 'true for a blank cell', (value) => value === null),
  test('ISERR', 'true for an error but #N/A', (value) => isError(value) && value !== FormulaError.na),
  test('ISERROR', 'true for an error', isError),
  test('ISLOGICAL', 'true for TRUE and FALSE', (value) => typeof value === 'boolean'),
  test('ISNA', 'true for #N/A', (value) => value === FormulaError.na),
  test('ISNONTEXT', 'true for what is not text', (value) => typeof value !== 'string'),
  test('ISNUMBER', 'true for a number or a date', (value) => typeof value === 'number' || value instanceof SerialDate),
  test('ISTEXT', 'true for text', (value) => typeof value === 'string'),
  define({ name: 'NA', says: 'the error #N/A: not available' }, [], () => FormulaError.na),
  define(
    { name: 'N', says: 'the value as a number: text is 0' },
    [anything('value')],
    ([{ operand }], place): Scalar => {
      const value = toScalar(operand, place);
      if (value instanceof FormulaError || typeof value === 'number') return value;
      return value instanceof SerialDate ? value.serial : typeof value === 'boolean' ? Number(value) : 0;
    },
  ),
];
