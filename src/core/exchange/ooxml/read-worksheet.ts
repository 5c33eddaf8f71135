import { inDigits } from '../../values/counted';
import { shiftFormula } from '../../formula/syntax/rewrite-references';
import type { Hex } from '../../looks/look';
import { cellAddress, parseAddress, parseRanges, type CellRange } from '../../sheet/address';
import { isErrorWord } from '../../values/cell-value';
import { numberText } from '../../values/number-text';
import { valueInput } from '../../values/value-input';
import { BadFile } from '../bad-file';
import { tooManyCells } from '../too-many-cells';
import { LIMITS } from '../limits';
import { Losses } from '../workbook/losses';
import { unusableBecause } from '../workbook/unusable-formula';
import type { WorkbookCell, WorkbookColumn, WorkbookRow, WorkbookSheet } from '../workbook/workbook-sheet';
import { readXml } from '../xml/read-xml';
import { isTrue } from '../xml/xml-boolean';
import { childOf, childrenOf, textOf, type XmlElement } from '../xml/xml-element';
import { fromOoxmlFormula } from './formula-text';
import { OOXML_PREFIXES } from './prefixes';
import { readConditions, type PlacedRule } from './read-conditions';
import { PLAIN_CELL, type OoxmlStyles } from './read-styles';
import { fromXstring } from './xstring';

export interface WorksheetSurroundings {
  readonly name: string;
  readonly part: string;
  readonly styles: OoxmlStyles;
  readonly theme: readonly (Hex | undefined)[];
  readonly texts: readonly string[];
  /** Days to add to dates of a file that counts from 1904. */
  readonly dateShift: number;
  readonly names: WorkbookSheet['names'];
}

/** Where a formula stands, and what would be typed for the value that the file has of it. */
interface FormulaPlace {
  readonly column: number;
  readonly position: number;
  readonly value: string;
}

/** Elements of a sheet that are not supported, and the message for each. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  dataValidations: 'What may be typed into cells is not taken along',
  hyperlinks: 'Links of cells are left out, their text stays',
  drawing: 'Pictures and charts are left out',
  legacyDrawing: 'Comments are left out',
  autoFilter: 'Filters are left out',
  tableParts: 'Tables become plain cells',
  sheetProtection: 'The protection of the sheet is left out: say under Share who may do what',
  oleObjects: 'Embedded objects are left out',
  sparklineGroups: 'Small charts in cells are left out',
};

/** Reads a sheet, 18.3.1.99, row by row. Throws a BadFile. */
export function readWorksheet(bytes: Uint8Array, around: WorksheetSurroundings): WorkbookSheet {
  const reader = new WorksheetReader(around);
  readXml(bytes, around.part, { prefixes: OOXML_PREFIXES, on: reader.on, begin: (name) => reader.begin(name) });
  return reader.done();
}

class WorksheetReader {
  private readonly losses = new Losses();
  private readonly rows = new Map<number, WorkbookRow>();
  private readonly columns = new Map<number, WorkbookColumn>();
  private readonly merges: CellRange[] = [];
  private readonly rules: PlacedRule[] = [];
  private readonly shared = new Map<
    string,
    { readonly formula: string; readonly column: number; readonly position: number }
  >();
  private frozen = { columns: 0, rows: 0 };
  private nextPosition = 0;
  private filled = 0;
  private width = 0;
  private lastRow = -1;

  constructor(private readonly around: WorksheetSurroundings) {}

  readonly on: Readonly<Record<string, (element: XmlElement) => void>> = {
    row: (element) => this.readRow(element),
    col: (element) => this.readColumn(element),
    pane: ({ attributes: { state, xSplit, ySplit } }) => {
      if (state?.startsWith('frozen')) this.frozen = { columns: Number(xSplit ?? 0), rows: Number(ySplit ?? 0) };
    },
    mergeCell: ({ attributes: { ref = '' } }) => this.merges.push(...(parseRanges(ref) ?? [])),
    conditionalFormatting: (element) => {
      const { name: sheet, theme, styles } = this.around;
      this.rules.push(...readConditions(element, { sheet, theme, looks: styles.looks, losses: this.losses }));
    },
    extLst: (element) => {
      if (textOfTree(element).includes('conditionalFormatting'))
        this.losses.add('Conditional formats beyond the standard are left out');
    },
  };

  begin(name: string): void {
    const told = LEFT_OUT[name];
    if (told !== undefined) this.losses.add(told);
  }

  private readColumn({ attributes: { min, max, width, hidden, style } }: XmlElement): void {
    const format = this.around.styles.cells[Number(style ?? 0)];
    const about: WorkbookColumn = {
      ...(width === undefined ? {} : { widthPx: Math.max(24, Math.min(2000, Math.round(Number(width) * 7 + 5))) }),
      ...(isTrue(hidden) ? { hidden: true } : {}),
      ...(style !== undefined && format?.style ? { style: format.style } : {}),
    };
    const last = Math.min(Number(max), LIMITS.fields);
    for (let column = Number(min) - 1; column < last; column++) this.columns.set(column, about);
  }

  private readRow(element: XmlElement): void {
    const { r, ht, customHeight, outlineLevel } = element.attributes;
    const position = r === undefined ? this.nextPosition : Number(r) - 1;
    this.nextPosition = position + 1;
    const cells = new Map<number, WorkbookCell>();
    let next = 0;
    for (const cell of childrenOf(element, 'c')) {
      const column = cell.attributes.r === undefined ? next : (parseAddress(cell.attributes.r)?.column ?? next);
      next = column + 1;
      const read = this.readCell(cell, column, position);
      if (read.input !== '') this.countCell(column, position);
      if (read.input !== '' || read.style) cells.set(column, read);
    }
    const heightPx =
      ht !== undefined && isTrue(customHeight)
        ? Math.max(16, Math.min(1000, Math.round((Number(ht) * 4) / 3)))
        : undefined;
    const level = Number(outlineLevel ?? 0);
    if (cells.size || heightPx !== undefined || level)
      this.rows.set(position, {
        cells,
        ...(heightPx === undefined ? {} : { heightPx }),
        ...(level ? { level: Math.min(8, level) } : {}),
      });
  }

  private countCell(column: number, position: number): void {
    if (column >= LIMITS.fields)
      throw new BadFile(
        `it is filled as far as column ${inDigits(column + 1)}; at most ${inDigits(LIMITS.fields)} fields are read`,
        this.placeOf(column, position),
      );
    if (position >= LIMITS.rows)
      throw new BadFile(
        `it is filled as far as row ${inDigits(position + 1)}; at most ${inDigits(LIMITS.rows)} are read`,
        this.around.name,
      );
    if (++this.filled > LIMITS.cellsHeld) throw tooManyCells(this.around.name);
    this.width = Math.max(this.width, column + 1);
    this.lastRow = Math.max(this.lastRow, position);
  }

  private placeOf(column: number, position: number): string {
    return `${this.around.name}, ${cellAddress(column, position)}`;
  }

  private readCell(cell: XmlElement, column: number, position: number): WorkbookCell {
    const { style, format } = this.around.styles.cells[Number(cell.attributes.s ?? 0)] ?? PLAIN_CELL;
    if (format.isLess) this.losses.add('A number format is shown in a simpler way', cellAddress(column, position));
    const formulaElement = childOf(cell, 'f');
    const value = this.valueInput(cell, format);
    const input = formulaElement ? (this.readFormula(formulaElement, { column, position, value }) ?? value) : value;
    if (input.length > LIMITS.cellText)
      throw new BadFile(
        `a cell has ${inDigits(input.length)} characters; at most ${inDigits(LIMITS.cellText)} are read`,
        this.placeOf(column, position),
      );
    return { input, ...(style ? { style } : {}) };
  }

  private valueInput(cell: XmlElement, format: { readonly isDate: boolean }): string {
    const raw = textOf(childOf(cell, 'v'));
    switch (cell.attributes.t ?? 'n') {
      case 's':
        return valueInput({ kind: 'text', text: this.around.texts[Number(raw)] ?? '' });
      case 'inlineStr':
        return valueInput({ kind: 'text', text: richText(childOf(cell, 'is')) });
      case 'str':
        return valueInput({ kind: 'text', text: fromXstring(raw) });
      case 'b':
        return raw === '' ? '' : isTrue(raw) ? 'TRUE' : 'FALSE';
      case 'e':
        return isErrorWord(raw) ? raw : raw === '' ? '' : '#VALUE!';
      case 'd':
        return raw.replace(/Z$/, '').replace(/\.\d+$/, '');
      default: {
        const number = Number(raw);
        if (raw.trim() === '' || Number.isNaN(number)) return '';
        if (!format.isDate) return numberText(number);
        return valueInput({ kind: 'date', serial: serialOf(number, this.around.dateShift) });
      }
    }
  }

  /** The formula of a cell as ours; undefined where its value is kept instead. */
  private readFormula(element: XmlElement, { value, ...at }: FormulaPlace): string | undefined {
    const { t, si = '', ref } = element.attributes;
    const where = cellAddress(at.column, at.position);
    const become = value === '' ? 'left out, since the file has no value of them' : 'kept as their values';
    if (t === 'dataTable') {
      this.losses.add(`Tables of trial calculations are ${become}`, where);
      return undefined;
    }
    const text = textOf(element);
    const known = this.shared.get(si);
    if (t === 'shared' && text === '')
      return known && shiftFormula(known.formula, at.column - known.column, at.position - known.position);
    if (text === '') return undefined;
    if (t === 'array' && ref !== undefined && ref.includes(':')) {
      this.losses.add(`Formulas that fill several cells are ${become}`, where);
      return undefined;
    }
    const formula = fromOoxmlFormula(text, this.around.name);
    const why = formula === undefined ? 'that use another file, a table or a spilled range' : unusableBecause(formula);
    if (formula === undefined || why !== undefined) {
      this.losses.add(`Formulas ${why} are ${become}`, where);
      return undefined;
    }
    if (t === 'shared') this.shared.set(si, { formula, ...at });
    return formula;
  }

  done(): WorkbookSheet {
    const { name, names } = this.around;
    return {
      name,
      width: this.width,
      rowCount: this.lastRow + 1,
      rows: this.rows,
      columns: this.columns,
      merges: this.merges,
      frozen: this.frozen,
      names,
      rules: this.rules.sort((one, other) => one.priority - other.priority).map(({ rule }) => rule),
      losses: this.losses.told,
    };
  }
}

/**
 * A number that counts days in a file, as one of ours. Day 60 of those that count from 1900 is a 29th of February that
 * there was not; below 1 is a time of day.
 */
function serialOf(number: number, shift: number): number {
  if (shift) return number + shift;
  return number >= 1 && number < 60 ? number + 1 : number;
}

/** The text of a string, in one or in several runs, without how it is to be spoken: 18.4.8. */
export function richText(element: XmlElement | undefined): string {
  const runs = childrenOf(element, 'r');
  return fromXstring((runs.length ? runs : [element]).map((run) => textOf(childOf(run, 't'))).join(''));
}

const textOfTree = (element: XmlElement): string =>
  element.content.map((each) => (typeof each === 'string' ? '' : each.name + textOfTree(each))).join(' ');
