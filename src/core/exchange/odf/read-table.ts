import { inDigits } from '../../values/counted';
import { itemAt } from '../../values/item-at';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { isReferenceHere } from '../workbook/is-reference-here';
import type { Look } from '../../looks/look';
import type { Style } from '../../looks/style';
import { cellAddress, parseAddress, writeArea, type CellRange } from '../../sheet/address';
import { isErrorWord } from '../../values/cell-value';
import { numberText } from '../../values/number-text';
import { valueInput } from '../../values/value-input';
import { BadFile } from '../bad-file';
import { tooManyCells } from '../too-many-cells';
import { LIMITS } from '../limits';
import { areasOf } from '../workbook/cells-to-areas';
import { Losses } from '../workbook/losses';
import { unusableBecause } from '../workbook/unusable-formula';
import type {
  WorkbookCell,
  WorkbookColumn,
  WorkbookRow,
  WorkbookRule,
  WorkbookSheet,
} from '../workbook/workbook-sheet';
import { readXml } from '../xml/read-xml';
import { childOf, childrenOf, elementsOf, type XmlElement } from '../xml/xml-element';
import { fromOdfFormula } from './formula-text';
import { ODF_PREFIXES } from './namespaces';
import { readCondition } from './read-conditions';
import type { OdfStyles, StyleMap } from './read-styles';

export interface TableAsked {
  readonly name: string;
  readonly place: number;
  readonly styles: OdfStyles;
  readonly expressions: readonly XmlElement[];
}

/** Elements of a sheet that are not supported, and the message for each. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  'table:shapes': 'Pictures and charts are left out',
  'table:content-validations': 'What may be typed into cells is not taken along',
  'table:database-ranges': 'Filters and ranges of data bases are left out',
  'table:tracked-changes': 'Changes that are kept track of are left out',
};

/** The sheet that stands in one place of the content. */
export function readTable(content: Uint8Array, asked: TableAsked): WorkbookSheet {
  const reader = new TableReader(asked);
  let place = -1;
  let depth = 0;
  const isHere = () => place === asked.place;
  const only = (read: (element: XmlElement) => void) => (element: XmlElement) => {
    if (isHere()) read(element);
  };
  readXml(content, 'content.xml', {
    prefixes: ODF_PREFIXES,
    on: {
      'table:table-row': only((row) => reader.readRow(row, depth)),
      'table:table-column': only((column) => reader.readColumn(column)),
    },
    begin: (name) => {
      if (name === 'table:table') place++;
      if (name === 'table:table-row-group') depth++;
      if (name === 'table:table-header-columns' && isHere()) reader.isHeaderColumns = true;
      const told = LEFT_OUT[name];
      if (told !== undefined && isHere()) reader.losses.add(told);
      if (name.startsWith('{') && name.endsWith('conditional-formats') && isHere())
        reader.losses.add('Conditional formats beyond the standard are left out');
    },
    end: (name) => {
      if (name === 'table:table-row-group') depth--;
      if (name === 'table:table-header-columns') reader.isHeaderColumns = false;
    },
  });
  return reader.done();
}

class TableReader {
  readonly losses = new Losses();
  /** While columns come that are repeated on each page: they stay in view here. */
  isHeaderColumns = false;
  private frozenColumns = 0;
  private readonly rows = new Map<number, WorkbookRow>();
  private readonly columns = new Map<number, WorkbookColumn>();
  private readonly columnStyles = new Map<number, string>();
  private readonly merges: CellRange[] = [];
  /** Cells by the conditional style they have. */
  private readonly conditional = new Map<string, { readonly column: number; readonly position: number }[]>();
  private nextColumn = 0;
  private position = 0;
  private filled = 0;
  private width = 0;
  private lastRow = -1;

  constructor(private readonly asked: TableAsked) {}

  readColumn({ attributes }: XmlElement): void {
    const repeated = Number(attributes['table:number-columns-repeated'] ?? 1);
    const widthPx = this.asked.styles.find('table-column', attributes['table:style-name'])?.widthPx;
    const isHidden = attributes['table:visibility'] === 'collapse';
    const cellStyle = attributes['table:default-cell-style-name'];
    for (let column = this.nextColumn; column < Math.min(LIMITS.fields, this.nextColumn + repeated); column++) {
      this.columns.set(column, {
        ...(widthPx === undefined ? {} : { widthPx }),
        ...(isHidden ? { hidden: true } : {}),
      });
      if (cellStyle !== undefined) this.columnStyles.set(column, cellStyle);
    }
    this.nextColumn += repeated;
    if (this.isHeaderColumns) this.frozenColumns = this.nextColumn;
  }

  readRow(row: XmlElement, depth: number): void {
    const {
      'table:number-rows-repeated': times = '1',
      'table:style-name': styleName,
      'table:default-cell-style-name': rowStyle,
    } = row.attributes;
    const cells = new Map<number, WorkbookCell>();
    let column = 0;
    let isFilled = false;
    for (const cell of elementsOf(row)) {
      if (cell.name !== 'table:table-cell' && cell.name !== 'table:covered-table-cell') continue;
      const repeated = Math.max(1, Number(cell.attributes['table:number-columns-repeated'] ?? 1));
      const name = cell.attributes['table:style-name'] ?? rowStyle;
      const input = this.inputOf(cell, column);
      if (input !== '') {
        isFilled = true;
        if (column + repeated > LIMITS.fields)
          throw new BadFile(
            `it is filled as far as column ${inDigits(column + repeated)}; at most ${inDigits(LIMITS.fields)} fields are read`,
            `${this.asked.name}, ${cellAddress(column, this.position)}`,
          );
      }
      this.readSpan(cell, column);
      for (let at = column; at < Math.min(column + repeated, LIMITS.fields); at++) {
        const read = this.dressed(input, name ?? this.columnStyles.get(at), at);
        if (read) cells.set(at, read);
        if (input !== '') this.width = Math.max(this.width, at + 1);
      }
      column += repeated;
    }
    this.placeRow(cells, {
      times: Number(times),
      isFilled,
      heightPx: this.asked.styles.find('table-row', styleName)?.heightPx,
      level: Math.min(8, depth),
    });
  }

  private dressed(input: string, styleName: string | undefined, column: number): WorkbookCell | undefined {
    const found = this.asked.styles.find('table-cell', styleName);
    if (found?.maps.length && styleName !== undefined) {
      const cells = this.conditional.get(styleName) ?? [];
      this.conditional.set(styleName, cells);
      cells.push({ column, position: this.position });
    }
    const style = found && Object.keys(found.style).length ? found.style : undefined;
    return input === '' && !style ? undefined : { input, ...(style ? { style } : {}) };
  }

  private placeRow(
    cells: ReadonlyMap<number, WorkbookCell>,
    {
      times,
      isFilled,
      heightPx,
      level,
    }: {
      readonly times: number;
      readonly isFilled: boolean;
      readonly heightPx: number | undefined;
      readonly level: number;
    },
  ): void {
    if (isFilled) {
      if (this.position + times > LIMITS.rows)
        throw new BadFile(
          `it is filled as far as row ${inDigits(this.position + times)}; at most ${inDigits(LIMITS.rows)} are read`,
          this.asked.name,
        );
      const held = [...cells.values()].filter(({ input }) => input !== '').length;
      if ((this.filled += held * times) > LIMITS.cellsHeld) throw tooManyCells(this.asked.name);
      this.lastRow = this.position + times - 1;
    }
    const row: WorkbookRow = { cells, ...(heightPx === undefined ? {} : { heightPx }), ...(level ? { level } : {}) };
    // Blank rows that are only formatted are repeated to the end of the sheet in many files.
    const copies = isFilled ? times : Math.min(times, 1000);
    for (let copy = 0; copy < copies; copy++)
      if (cells.size || heightPx !== undefined || level) this.rows.set(this.position + copy, row);
    if (copies > 1) this.repeatConditional(copies);
    this.position += times;
  }

  /** The cells of this row that have conditional styles, once more in each of the rows that repeat it. */
  private repeatConditional(copies: number): void {
    for (const found of this.conditional.values()) {
      const own = found.slice(found.findLastIndex(({ position }) => position !== this.position) + 1);
      for (let copy = 1; copy < copies; copy++)
        for (const { column } of own) found.push({ column, position: this.position + copy });
    }
  }

  private readSpan({ attributes }: XmlElement, column: number): void {
    const across = Number(attributes['table:number-columns-spanned'] ?? 1);
    const down = Number(attributes['table:number-rows-spanned'] ?? 1);
    if (across > 1 || down > 1)
      this.merges.push({
        left: column,
        right: column + across - 1,
        top: this.position,
        bottom: this.position + down - 1,
      });
  }

  private inputOf(cell: XmlElement, column: number): string {
    const { attributes } = cell;
    const where = cellAddress(column, this.position);
    if (childOf(cell, 'office:annotation')) this.losses.add('Comments are left out', where);
    const value = valueOf(cell);
    if (value.length > LIMITS.cellText)
      throw new BadFile(
        `a cell has ${inDigits(value.length)} characters; at most ${inDigits(LIMITS.cellText)} are read`,
        `${this.asked.name}, ${where}`,
      );
    const text = attributes['table:formula'];
    if (text === undefined) return value;
    const formula =
      attributes['table:number-matrix-columns-spanned'] === undefined
        ? fromOdfFormula(text, this.asked.name)
        : undefined;
    const why =
      formula === undefined ? 'that are written in another language, or fill several cells,' : unusableBecause(formula);
    // An error that was typed is written as a formula of nothing but the error.
    if (formula !== undefined && why === undefined) return isErrorWord(formula.slice(1)) ? formula.slice(1) : formula;
    this.losses.add(
      `Formulas ${why} are ${value === '' ? 'left out, since the file has no value of them' : 'kept as their values'}`,
      where,
    );
    return value;
  }

  /** The rules of all conditional styles: those of different styles that say the same are one. */
  private rules(): WorkbookRule[] {
    const cellsOf = new Map<
      string,
      {
        readonly map: StyleMap;
        readonly cells: { readonly column: number; readonly position: number }[];
        readonly isLast: boolean;
      }
    >();
    const order: string[] = [];
    for (const [name, cells] of this.conditional) {
      const maps = this.asked.styles.find('table-cell', name)!.maps;
      let after = -1;
      maps.forEach((map, at) => {
        const key = JSON.stringify(map);
        const known = cellsOf.get(key);
        if (known) {
          for (const cell of cells) known.cells.push(cell);
          after = order.indexOf(key);
          if (at < maps.length - 1) cellsOf.set(key, { ...known, isLast: false });
        } else {
          cellsOf.set(key, { map, cells: [...cells], isLast: at === maps.length - 1 });
          order.splice(++after, 0, key);
        }
      });
    }
    return order.flatMap((key) => this.ruleOf(cellsOf.get(key)!) ?? []);
  }

  private ruleOf({
    map,
    cells,
    isLast,
  }: {
    readonly map: StyleMap;
    readonly cells: readonly { readonly column: number; readonly position: number }[];
    readonly isLast: boolean;
  }): WorkbookRule | undefined {
    const areas = areasOf(cells);
    const where = areas.map(writeArea).join(' ');
    const base = /\.?([A-Z]+\d+)$/.exec(map.base.replaceAll('$', '').slice(-20))?.[1];
    const read = readCondition(
      map.condition,
      base && parseAddress(base) ? base : cellAddress(itemAt(areas, 0).left, itemAt(areas, 0).top),
      this.asked.name,
    );
    if ('lost' in read) {
      this.losses.add(`A conditional format is left out: ${read.lost}`, where);
      return undefined;
    }
    const applied = this.asked.styles.find('table-cell', map.applies);
    return {
      name: applied?.displayName ?? null,
      on: true,
      // The first condition that is true decides alone.
      settles: !isLast,
      reads: { cells: where },
      when: read.when,
      paints: 'cell',
      look: lookOf(applied?.style ?? {}),
    };
  }

  done(): WorkbookSheet {
    return {
      name: this.asked.name,
      width: this.width,
      rowCount: this.lastRow + 1,
      rows: this.rows,
      columns: this.columns,
      merges: this.merges,
      frozen: { columns: this.frozenColumns, rows: 0 },
      names: this.asked.expressions.flatMap(({ attributes }) => {
        const refersTo = fromOdfFormula(`=[${attributes['table:cell-range-address'] ?? ''}]`, this.asked.name);
        return refersTo !== undefined && isReferenceHere(parseFormula(refersTo))
          ? { name: attributes['table:name'] ?? '', refersTo }
          : [];
      }),
      rules: this.rules(),
      losses: this.losses.told,
    };
  }
}

/** A look never changes the letters' size or family, nor where the text stands: that would move the layout. */
function lookOf({ sizePx: _, family: __, align: ___, stand: ____, wrap: _____, ...look }: Style): Look {
  return look;
}

function valueOf(cell: XmlElement): string {
  const { attributes } = cell;
  switch (attributes['office:value-type']) {
    case 'float':
    case 'percentage':
    case 'currency': {
      const number = Number(attributes['office:value']);
      const shown = paragraphs(cell);
      // Errors are kept as numbers whose text is the error.
      if (isErrorWord(shown)) return shown;
      return attributes['office:value'] === undefined || Number.isNaN(number) ? '' : numberText(number);
    }
    case 'date':
      return (attributes['office:date-value'] ?? '')
        .replace('T', ' ')
        .replace(/Z$/, '')
        .replace(/(:\d{2})[.,]\d+$/, '$1');
    case 'time': {
      const [, hours = 0, minutes = 0, seconds = 0] = (
        /^PT(?:(\d+)H)?(?:(\d+)M)?(?:([\d.]+)S)?$/.exec(attributes['office:time-value'] ?? '') ?? []
      ).map(Number);
      const days = ((hours || 0) * 3600 + (minutes || 0) * 60 + (seconds || 0)) / 86_400;
      return days < 1 ? valueInput({ kind: 'date', serial: days }) : numberText(days);
    }
    case 'boolean':
      return attributes['office:boolean-value'] === 'true' ? 'TRUE' : 'FALSE';
    case undefined:
      return valueInput({ kind: 'text', text: paragraphs(cell) });
    default: {
      const shown = attributes['office:string-value'] ?? paragraphs(cell);
      return isErrorWord(shown) && attributes['table:formula'] !== undefined
        ? shown
        : valueInput({ kind: 'text', text: shown });
    }
  }
}

/** The text of a cell, a line a paragraph; `s`, `tab` and `line-break` stand for white space, 6.1. */
const paragraphs = (cell: XmlElement): string => childrenOf(cell, 'text:p').map(inline).join('\n');

const inline = (element: XmlElement): string =>
  element.content
    .map((each) => {
      if (typeof each === 'string') return each.replace(/[\t\r\n ]+/g, ' ');
      if (each.name === 'text:s') return ' '.repeat(Math.min(1000, Number(each.attributes['text:c'] ?? 1)));
      if (each.name === 'text:tab') return '\t';
      if (each.name === 'text:line-break') return '\n';
      return each.name === 'office:annotation' ? '' : inline(each);
    })
    .join('');
