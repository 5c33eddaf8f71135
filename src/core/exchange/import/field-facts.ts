import { isDecimalComma } from '../../values/decimal-comma';
import { foldText } from '../../values/fold-text';
import { readDate } from '../../values/dates/read-date';
import { readNumber } from '../../values/read-number';

/** Statistics of one column of a text file: how many cells of each kind, counted while they pass by. */
export class FieldFacts {
  /** Cells that hold something. */
  filled = 0;
  /** Numbers as they are typed here, with a decimal point or without decimals. */
  numbers = 0;
  /** Numbers only where the comma divides decimals, such as 3,5 and 1.234,50. */
  commaNumbers = 0;
  /** Numbers only where the point divides decimals, such as 3.5 and 1,234.50. */
  pointNumbers = 0;
  /**
   * Whole numbers that begin with a zero, such as 007, or have more than 15 digits: codes, whose digits would be lost.
   */
  codes = 0;
  dates = 0;
  /** Dates in numbers that can be only day-month, only month-day, or either. */
  dayFirst = 0;
  monthFirst = 0;
  eitherOrder = 0;
  logicals = 0;
  formulas = 0;
  texts = 0;
  /** The first cell that is text. */
  firstText: string | null = null;
  /** The first number with a decimal comma. */
  firstComma: string | null = null;
  firstCode: string | null = null;

  add(raw: string): void {
    const cell = raw.trim();
    if (cell === '') return;
    this.filled++;
    if (cell.startsWith('=')) this.formulas++;
    else if (isCode(cell)) {
      this.codes++;
      this.firstCode ??= cell;
    } else if (cell.includes(',') && isDecimalComma(cell)) {
      this.commaNumbers++;
      this.firstComma ??= cell;
    } else if (readNumber(cell)) {
      this.numbers++;
      if (cell.includes('.')) this.pointNumbers++;
    } else if (readDate(cell) !== undefined) this.dates++;
    else if (!this.addNumericDate(cell)) {
      const folded = foldText(cell);
      if (folded === 'true' || folded === 'false') this.logicals++;
      else {
        this.texts++;
        this.firstText ??= cell;
      }
    }
  }

  private addNumericDate(cell: string): boolean {
    if (!NUMERIC_DATE.test(cell)) return false;
    const isDayFirst = readDate(cell, 'dmy') !== undefined;
    const isMonthFirst = readDate(cell, 'mdy') !== undefined;
    if (isDayFirst && isMonthFirst) this.eitherOrder++;
    else if (isDayFirst) this.dayFirst++;
    else if (isMonthFirst) this.monthFirst++;
    return isDayFirst || isMonthFirst;
  }
}

const CODE = /^(?:0\d+|\d{16,})$/;
const isCode = (cell: string): boolean => (cell.length > 15 || cell.startsWith('0')) && CODE.test(cell);

const NUMERIC_DATE = /^\d{1,2}([/.-])\d{1,2}\1\d{4}/;
