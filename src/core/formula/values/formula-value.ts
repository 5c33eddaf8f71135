import type { CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import type { ErrorWord } from '../../values/cell-value';
import { foldCase } from '../../values/fold-text';
import { isoFromSerial } from '../../values/dates/date-serial';
import { readDate } from '../../values/dates/read-date';
import { numberText } from '../../values/number-text';
import { readNumber } from '../../values/read-number';

/**
 * An error as a value of the formula language. One object for each word, so that errors can be compared by identity.
 */
export class FormulaError {
  private constructor(readonly word: ErrorWord) {}
  static readonly na = new FormulaError('#N/A');
  static readonly divideByZero = new FormulaError('#DIV/0!');
  static readonly value = new FormulaError('#VALUE!');
  static readonly reference = new FormulaError('#REF!');
  static readonly name = new FormulaError('#NAME?');
  static readonly number = new FormulaError('#NUM!');
  static readonly empty = new FormulaError('#NULL!');
  static readonly cycle = new FormulaError('#CYCLE!');
  static readonly limit = new FormulaError('#LIMIT!');

  static of(word: ErrorWord): FormulaError {
    return BY_WORD.get(word)!;
  }
}

const BY_WORD = new Map(
  [
    FormulaError.na,
    FormulaError.divideByZero,
    FormulaError.value,
    FormulaError.reference,
    FormulaError.name,
    FormulaError.number,
    FormulaError.empty,
    FormulaError.cycle,
    FormulaError.limit,
  ].map((error) => [error.word, error]),
);

/** A number that is shown as a date: days since 1899-12-30. */
export class SerialDate {
  constructor(readonly serial: number) {}
}

/** One value: `null` is blank. */
export type Scalar = null | number | string | boolean | SerialDate | FormulaError;

/** Cells of a sheet, by position, both ends included; a whole column ends at the last row there is. */
export class Area implements CellRange {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;

  constructor(
    readonly sheet: Sheet,
    { left, top, right, bottom }: CellRange,
  ) {
    this.left = left;
    this.top = top;
    this.right = right;
    this.bottom = bottom;
  }

  get rows(): number {
    return this.bottom - this.top + 1;
  }

  get columns(): number {
    return this.right - this.left + 1;
  }
}

/** Several areas, as the union operator gives them. */
export class AreaList {
  constructor(readonly areas: readonly Area[]) {}
}

/** Values that stand in rows and columns without being cells. Row by row in `values`. */
export class Matrix {
  constructor(
    readonly rows: number,
    readonly columns: number,
    readonly values: readonly Scalar[],
  ) {}
}

/** The results of an expression. */
export type Operand = Scalar | Area | AreaList | Matrix;

export const isScalar = (value: Operand): value is Scalar =>
  !(value instanceof Area || value instanceof AreaList || value instanceof Matrix);

/** The value as a number: a blank is 0, text that reads as a number is converted. */
export function toNumber(value: Scalar): number | FormulaError {
  if (typeof value === 'number') return value;
  if (value === null) return 0;
  if (typeof value === 'boolean') return value ? 1 : 0;
  if (value instanceof SerialDate) return value.serial;
  if (value instanceof FormulaError) return value;
  return readNumber(value.trim())?.number ?? FormulaError.value;
}

/** The value as a serial date: as a number, and ISO 8601 text is converted too. */
export function toSerial(value: Scalar): number | FormulaError {
  return typeof value === 'string' ? (readDate(value.trim()) ?? toNumber(value)) : toNumber(value);
}

/** The value as text: a blank is empty. */
export function toText(value: Scalar): string | FormulaError {
  if (typeof value === 'string') return value;
  if (value === null) return '';
  if (typeof value === 'number') return numberText(value);
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  return value instanceof SerialDate ? isoFromSerial(value.serial).replace('T', ' ') : value;
}

/** The value as a logical: numbers but 0 are true, a blank is false. */
export function toLogical(value: Scalar): boolean | FormulaError {
  if (typeof value === 'boolean') return value;
  if (value === null) return false;
  if (typeof value === 'number') return value !== 0;
  if (value instanceof SerialDate) return value.serial !== 0;
  if (value instanceof FormulaError) return value;
  const word = value.trim().toUpperCase();
  return word === 'TRUE' ? true : word === 'FALSE' ? false : FormulaError.value;
}

/** A computed number, or the error for one that is none. */
export const finite = (value: number): number | FormulaError => (Number.isFinite(value) ? value : FormulaError.number);

/**
 * Rounds results that engines compute differently in the last bit (powers, logarithms, circular functions) to 15
 * significant digits, so that every engine gives the same double.
 */
export const settled = (value: number): number => (Number.isFinite(value) ? Number(value.toPrecision(15)) : value);

/**
 * How two values compare: negative, 0 or positive. Numbers come before texts, texts before logicals; a blank is like
 * the other's nothing. Neither may be an error.
 */
export function compareScalars(one: Scalar, other: Scalar): number {
  if (typeof one === 'number' && typeof other === 'number') return one - other;
  const [left, right] = [plain(one, other), plain(other, one)];
  const [a, b] = [rank(left), rank(right)];
  if (a !== b) return a - b;
  if (typeof left === 'string' && typeof right === 'string') return compareTexts(left, right);
  return Number(left) - Number(right);
}

/** Order of texts by code points, case aside. */
export function compareTexts(one: string, other: string): number {
  if (one === other) return 0;
  const [a, b] = [foldCase(one), foldCase(other)];
  const shared = Math.min(a.length, b.length);
  for (let at = 0; at < shared; at++) {
    const [unit, beside] = [a.charCodeAt(at), b.charCodeAt(at)];
    if (unit !== beside) return inOrder(unit) - inOrder(beside);
  }
  return a.length - b.length;
}

/**
 * UTF-16 code units in the order of the code points that they begin: halves of pairs after all others (RFC 2781, 2.1).
 */
const inOrder = (unit: number): number => (unit >= 0xd800 && unit < 0xe000 ? unit + 0x10000 : unit);

function plain(value: Scalar, beside: Scalar): number | string | boolean {
  if (value === null) return typeof beside === 'string' ? '' : typeof beside === 'boolean' ? false : 0;
  return value instanceof SerialDate ? value.serial : (value as number | string | boolean);
}

const rank = (value: number | string | boolean): number =>
  typeof value === 'number' ? 0 : typeof value === 'string' ? 1 : 2;
