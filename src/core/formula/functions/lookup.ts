// Lookup functions (ISO/IEC 26300-4, 6.14), and references made from numbers and text.
import { cellAddress, columnLetters } from '../../sheet/address';
import { bindReference } from '../values/bind-reference';
import { matches } from '../values/criterion';
import {
  Area,
  AreaList,
  compareScalars,
  FormulaError,
  Matrix,
  SerialDate,
  toNumber,
  type Operand,
  type Scalar,
} from '../values/formula-value';
import { parseFormula } from '../syntax/parse-formula';
import { positionAt, spend, spendText, type EvalCursor } from '../values/place';
import { readAt } from '../values/read-cells';
import {
  anything,
  area,
  define,
  volatileOn,
  integer,
  later,
  logical,
  number,
  optional,
  scalar,
  several,
  text,
} from './function-spec';

/** Cells or an array, as something that can be asked for a value by row and column. */
interface Table {
  readonly rows: number;
  readonly columns: number;
  at(row: number, column: number): Scalar;
}

function tableOf(operand: Operand): Table | FormulaError {
  if (operand instanceof Area)
    return { rows: operand.rows, columns: operand.columns, at: (row, column) => readAt(operand, row, column) };
  if (operand instanceof Matrix)
    return {
      rows: operand.rows,
      columns: operand.columns,
      at: (row, column) => operand.values[row * operand.columns + column]!,
    };
  if (operand instanceof AreaList) return FormulaError.value;
  return operand instanceof FormulaError ? operand : { rows: 1, columns: 1, at: () => operand };
}

const kindOfValue = (value: Scalar): string => (value instanceof SerialDate ? 'number' : typeof value);

/** The values of a list that is looked through, counted as they are read. */
function counted(count: number, place: EvalCursor, at: (index: number) => Scalar): (index: number) => Scalar {
  spend(place, count);
  return (index) => {
    const value = at(index);
    spendText(place, value);
    return value;
  };
}

/** Place of a value in a list that need not be sorted; text may hold wildcards. */
function findEqual(wanted: Scalar, count: number, at: (index: number) => Scalar): number {
  const test = typeof wanted === 'string' ? matches(wanted) : undefined;
  for (let index = 0; index < count; index++) {
    const value = at(index);
    if (value === null || value instanceof FormulaError || kindOfValue(value) !== kindOfValue(wanted)) continue;
    if (test ? test(value) : compareScalars(value, wanted) === 0) return index;
  }
  return -1;
}

/**
 * Place of the last value not beyond the one wanted, in a list sorted upwards (or downwards): a halving search over the
 * values of its type.
 */
function findSorted(
  wanted: Scalar,
  count: number,
  { at, direction }: { at: (index: number) => Scalar; direction: 1 | -1 },
): number {
  const members: number[] = [];
  for (let index = 0; index < count; index++) {
    const value = at(index);
    if (value !== null && !(value instanceof FormulaError) && kindOfValue(value) === kindOfValue(wanted))
      members.push(index);
  }
  let low = 0;
  let high = members.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (compareScalars(at(members[middle]!), wanted) * direction <= 0) low = middle + 1;
    else high = middle;
  }
  return low === 0 ? -1 : members[low - 1]!;
}

const lookup = (name: string, says: string, along: 'rows' | 'columns') =>
  define(
    { name, says },
    [
      scalar('wanted'),
      anything('table'),
      integer(along === 'rows' ? 'column' : 'row'),
      optional(logical('sorted'), true),
    ],
    ([wanted, { operand }, index, isSorted], place) => {
      const table = tableOf(operand);
      if (table instanceof FormulaError) return table;
      const [count, depth] = along === 'rows' ? [table.rows, table.columns] : [table.columns, table.rows];
      if (index < 1) return FormulaError.value;
      if (index > depth) return FormulaError.reference;
      const at = (member: number, line: number) => (along === 'rows' ? table.at(member, line) : table.at(line, member));
      const key = counted(count, place, (member) => at(member, 0));
      const found = isSorted ? findSorted(wanted, count, { at: key, direction: 1 }) : findEqual(wanted, count, key);
      return found < 0 ? FormulaError.na : at(found, index - 1);
    },
  );

/** Rows or columns of the argument; without one, the row or column of the formula itself. */
const coordinate = (
  name: string,
  says: string,
  { of, here }: { of: (operand: Area) => number; here: (place: EvalCursor) => number },
) =>
  define({ name, says }, [optional(anything('cell'), { operand: null })], ([{ operand }], place) =>
    operand === null
      ? here(place) + 1
      : operand instanceof Area
        ? of(operand) + 1
        : operand instanceof FormulaError
          ? operand
          : FormulaError.value,
  );

const size = (name: string, says: string, of: (table: Table) => number) =>
  define({ name, says }, [anything('cells')], ([{ operand }]) => {
    const table = tableOf(operand);
    return table instanceof FormulaError ? table : of(table);
  });

function index(operand: Operand, row: number, column: number): Operand {
  const table = tableOf(operand);
  if (table instanceof FormulaError) return table;
  // One number alone counts along a single row.
  const [r, c] = table.rows === 1 && column === 0 && table.columns > 1 ? [1, row] : [row, column];
  if (r < 0 || c < 0) return FormulaError.value;
  if (r > table.rows || c > table.columns) return FormulaError.reference;
  if (operand instanceof Area) {
    const [top, bottom] = r === 0 ? [operand.top, operand.bottom] : [operand.top + r - 1, operand.top + r - 1];
    const [left, right] = c === 0 ? [operand.left, operand.right] : [operand.left + c - 1, operand.left + c - 1];
    return new Area(operand.sheet, { left, top, right, bottom });
  }
  return table.at(Math.max(0, r - 1), Math.max(0, c - 1));
}

function offset(
  from: Area,
  { rows, columns, height, width }: { rows: number; columns: number; height: number; width: number },
): Area | FormulaError {
  const top = from.top + rows;
  const left = from.left + columns;
  if (height < 1 || width < 1) return FormulaError.value;
  return top < 0 || left < 0
    ? FormulaError.reference
    : new Area(from.sheet, { left, top, right: left + width - 1, bottom: top + height - 1 });
}

/** The cost of reading the text of a reference, in values. */
const PARSING_WORK = 500;

/** The cells that a text names; what it does not name is `#REF!`. */
function indirect(reference: string, place: EvalCursor): Area | FormulaError {
  spend(place, PARSING_WORK);
  const named = place.context.findName(reference);
  const { tree, diagnostics } = parseFormula(`=${named === undefined ? reference : named.replace(/^=/, '')}`);
  if (diagnostics.length || tree.kind !== 'reference') return FormulaError.reference;
  return bindReference(tree, place.context, undefined).areaAt(place);
}

function demanded(cells: Area | FormulaError, place: EvalCursor): Operand {
  if (cells instanceof Area) place.context.demand?.(cells);
  return cells;
}

function address({ row, column, kind }: { row: number; column: number; kind: number }): string | FormulaError {
  if (row < 1 || column < 1 || kind < 1 || kind > 4) return FormulaError.value;
  const [columnMark, rowMark] = [kind === 1 || kind === 3 ? '$' : '', kind === 1 || kind === 2 ? '$' : ''];
  return kind === 4 ? cellAddress(column - 1, row - 1) : `${columnMark}${columnLetters(column - 1)}${rowMark}${row}`;
}

export const LOOKUP = [
  lookup('VLOOKUP', 'the value in a column of the row whose first cell is wanted', 'rows'),
  lookup('HLOOKUP', 'the value in a row of the column whose first cell is wanted', 'columns'),
  define(
    { name: 'MATCH', says: 'the place of a value in a row or column: 1 sorted upwards, -1 downwards, 0 exactly' },
    [scalar('wanted'), anything('cells'), optional(number('sorted'), 1)],
    ([wanted, { operand }, order], place) => {
      const table = tableOf(operand);
      if (table instanceof FormulaError) return table;
      if (table.rows > 1 && table.columns > 1) return FormulaError.na;
      const count = table.rows * table.columns;
      const at = counted(count, place, (member) => (table.rows > 1 ? table.at(member, 0) : table.at(0, member)));
      const found =
        order === 0 ? findEqual(wanted, count, at) : findSorted(wanted, count, { at, direction: order > 0 ? 1 : -1 });
      return found < 0 ? FormulaError.na : found + 1;
    },
  ),
  define(
    { name: 'INDEX', says: 'the value at a row and column of a table; 0 is the whole of it' },
    [anything('table'), optional(integer('row'), 0), optional(integer('column'), 0)],
    ([{ operand }, row, column]) => index(operand, row, column),
  ),
  define(
    { name: 'CHOOSE', says: 'the n-th of the values' },
    [integer('n'), several(later('values'))],
    ([n, values]) => values[n - 1]?.() ?? (n >= 1 && n <= values.length ? null : FormulaError.value),
  ),
  size('ROWS', 'how many rows there are', ({ rows }) => rows),
  size('COLUMNS', 'how many columns there are', ({ columns }) => columns),
  coordinate('ROW', 'the number of a row', { of: ({ top }) => top, here: positionAt }),
  coordinate('COLUMN', 'the number of a column', { of: ({ left }) => left, here: ({ column }) => column }),
  define(
    { name: 'ADDRESS', says: 'the address of a cell as text: 1 both absolute, 2 the row, 3 the column, 4 neither' },
    [integer('row'), integer('column'), optional(integer('anchoring'), 1)],
    ([row, column, kind]) => address({ row, column, kind }),
  ),
  volatileOn(
    'cells',
    define({ name: 'INDIRECT', says: 'the cells that a text names' }, [text('reference')], ([reference], place) =>
      demanded(indirect(reference, place), place),
    ),
  ),
  volatileOn(
    'cells',
    define(
      { name: 'OFFSET', says: 'cells so many rows and columns away' },
      [
        area('from'),
        integer('rows'),
        integer('columns'),
        optional(scalar('height'), null),
        optional(scalar('width'), null),
      ],
      ([from, rows, columns, height, width], place) => {
        const [h, w] = [
          height === null ? from.rows : toNumber(height),
          width === null ? from.columns : toNumber(width),
        ];
        if (typeof h !== 'number') return h;
        if (typeof w !== 'number') return w;
        return demanded(offset(from, { rows, columns, height: Math.trunc(h), width: Math.trunc(w) }), place);
      },
    ),
  ),
];
