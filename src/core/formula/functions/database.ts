// Database functions (ISO/IEC 26300-4, 6.9): over the records of a table with labels that meet a table of criteria.
import { itemAt } from '../../values/item-at';
import { readCriterion } from '../values/criterion';
import {
  type Area,
  compareTexts,
  finite,
  FormulaError,
  SerialDate,
  toText,
  type Operand,
  type Scalar,
} from '../values/formula-value';
import { spend, spendText, type EvalCursor } from '../values/place';
import { readAt, toScalar } from '../values/read-cells';
import { anything, area, define } from './function-spec';
import { greatest, least, spreadOf, sumOf } from './statistics';

/** The column of a table with this label, or with this number from 1. */
function fieldOf(table: Area, field: Scalar): number | FormulaError {
  if (field instanceof FormulaError) return field;
  if (typeof field === 'number')
    return field >= 1 && field <= table.columns ? Math.floor(field) - 1 : FormulaError.value;
  const label = toText(field) as string;
  for (let column = 0; column < table.columns; column++) {
    const text = toText(readAt(table, 0, column));
    if (typeof text === 'string' && compareTexts(text, label) === 0) return column;
  }
  return FormulaError.value;
}

/** Rows of a table that meet any line of the criteria; all its cells must be met, blank ones always are. */
function rowsMeeting(table: Area, criteria: Area, place: EvalCursor): number[] | FormulaError {
  spend(place, table.rows * criteria.rows * criteria.columns);
  const fields: number[] = [];
  for (let column = 0; column < criteria.columns; column++) {
    spend(place, table.columns);
    const field = fieldOf(table, readAt(criteria, 0, column));
    if (typeof field !== 'number') return field;
    fields.push(field);
  }
  const lines = Array.from({ length: criteria.rows - 1 }, (_, at) =>
    fields.flatMap((field, column) => {
      const given = readAt(criteria, at + 1, column);
      return given === null ? [] : [{ field, test: readCriterion(given) }];
    }),
  );
  const rows: number[] = [];
  const meets = (row: number, { field, test }: (typeof lines)[number][number]): boolean => {
    const value = readAt(table, row, field);
    spendText(place, value);
    return test(value);
  };
  for (let row = 1; row < table.rows; row++)
    if (lines.some((tests) => tests.every((test) => meets(row, test)))) rows.push(row);
  return rows;
}

const over = (name: string, says: string, compute: (values: readonly Scalar[]) => Operand) =>
  define(
    { name, says },
    [area('table'), anything('field'), area('criteria')],
    ([table, { operand }, criteria], place) => {
      const rows = rowsMeeting(table, criteria, place);
      if (rows instanceof FormulaError) return rows;
      const given = toScalar(operand, place);
      // Without a field DCOUNT and DCOUNTA count records.
      if (given === null) return compute(rows.map(() => 1));
      spend(place, table.columns);
      const field = fieldOf(table, given);
      return typeof field === 'number' ? compute(rows.map((row) => readAt(table, row, field))) : field;
    },
  );

/** Over the numbers among the values; an error among them is the result. */
const overNumbers = (name: string, says: string, compute: (values: readonly number[]) => number | FormulaError) =>
  over(name, says, (values) => values.find((value) => value instanceof FormulaError) ?? compute(numbersAmong(values)));

const numbersAmong = (values: readonly Scalar[]): number[] =>
  values.flatMap((value) => (typeof value === 'number' ? value : value instanceof SerialDate ? value.serial : []));

const square = (value: number | FormulaError) => (typeof value === 'number' ? finite(value * value) : value);

export const DATABASE = [
  overNumbers('DAVERAGE', 'the mean of a field over the records that meet the criteria', (values) =>
    values.length ? finite(sumOf(values) / values.length) : FormulaError.divideByZero,
  ),
  over(
    'DCOUNT',
    'how many numbers a field has in the records that meet the criteria',
    (values) => numbersAmong(values).length,
  ),
  over(
    'DCOUNTA',
    'how many values a field has in the records that meet the criteria',
    (values) => values.filter((value) => value !== null).length,
  ),
  over('DGET', 'the value of a field in the one record that meets the criteria', (values) =>
    values.length === 1 ? itemAt(values, 0) : values.length === 0 ? FormulaError.value : FormulaError.number,
  ),
  overNumbers('DMAX', 'the greatest number of a field in the records that meet the criteria', greatest),
  overNumbers('DMIN', 'the least number of a field in the records that meet the criteria', least),
  overNumbers('DPRODUCT', 'the product of a field over the records that meet the criteria', (values) =>
    finite(values.reduce((product, value) => product * value, values.length ? 1 : 0)),
  ),
  overNumbers('DSTDEV', 'the sample standard deviation of a field over the records that meet the criteria', (values) =>
    spreadOf(values, 'sample'),
  ),
  overNumbers(
    'DSTDEVP',
    'the population standard deviation of a field over the records that meet the criteria',
    (values) => spreadOf(values, 'population'),
  ),
  overNumbers('DSUM', 'the sum of a field over the records that meet the criteria', (values) => finite(sumOf(values))),
  overNumbers('DVAR', 'the sample variance of a field over the records that meet the criteria', (values) =>
    square(spreadOf(values, 'sample')),
  ),
  overNumbers('DVARP', 'the population variance of a field over the records that meet the criteria', (values) =>
    square(spreadOf(values, 'population')),
  ),
];
