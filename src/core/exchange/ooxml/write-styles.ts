import { itemAt } from '../../values/item-at';
import { SIDES, type BorderSide, type Fill, type Hex, type PlainLook } from '../../looks/look';
import { groundOf } from '../../looks/readable-text';
import type { Style } from '../../looks/style';
import { xml, XML_BEGIN } from '../xml/write-xml';
import { writeFormatCode } from './number-format';
import { MAIN_NAMESPACE } from './prefixes';

const FIRST_FONT_PX = 15;
/** Number formats below this have a meaning of their own, 18.8.30. */
const FIRST_FORMAT = 164;

/** Things that are written once and referred to by number. */
class Numbered {
  private readonly places = new Map<string, number>();

  constructor(...first: readonly string[]) {
    first.forEach((text) => this.place(text));
  }

  place(text: string): number {
    const known = this.places.get(text);
    if (known !== undefined) return known;
    this.places.set(text, this.places.size);
    return this.places.size - 1;
  }

  get all(): string[] {
    return [...this.places.keys()];
  }
}

const color = (name: string, hex: Hex): string => xml(name, { rgb: `FF${hex.slice(1).toUpperCase()}` });

/** Gathers the formatting of cells and the looks of rules, 18.8, each kind once. */
export class StylesWriter {
  private readonly fonts = new Numbered(fontXml({}));
  private readonly fills = new Numbered(
    xml('fill', {}, xml('patternFill', { patternType: 'none' })),
    xml('fill', {}, xml('patternFill', { patternType: 'gray125' })),
  );
  private readonly borders = new Numbered(borderXml(undefined));
  private readonly codes = new Numbered();
  private readonly formats = new Numbered(xml('xf', { numFmtId: 0, fontId: 0, fillId: 0, borderId: 0, xfId: 0 }));
  private readonly looks = new Numbered();
  private readonly known = new Map<string, number>();
  private readonly met = new WeakMap<Style, number>();

  /** The number of a cell's formatting. */
  cellFormat(style: Style | undefined): number {
    if (!style) return 0;
    let place = this.met.get(style);
    if (place === undefined) this.met.set(style, (place = this.placeOf(style)));
    return place;
  }

  private placeOf(style: Style): number {
    const key = JSON.stringify(style);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const { align, stand, wrap } = style;
    const alignment =
      (align ?? stand ?? wrap)
        ? xml('alignment', {
            horizontal: align && { start: 'left', center: 'center', end: 'right' }[align],
            vertical: stand && { top: 'top', middle: 'center', bottom: 'bottom' }[stand],
            wrapText: wrap || undefined,
          })
        : '';
    const ids = {
      numFmtId: style.number === undefined ? 0 : FIRST_FORMAT + this.codes.place(writeFormatCode(style.number)),
      fontId: this.fonts.place(fontXml(style)),
      fillId:
        style.fill === undefined
          ? 0
          : this.fills.place(
              xml('fill', {}, xml('patternFill', { patternType: 'solid' }, color('fgColor', style.fill))),
            ),
      borderId: this.borders.place(borderXml(style.border)),
    };
    const place = this.formats.place(
      xml(
        'xf',
        {
          ...ids,
          xfId: 0,
          applyNumberFormat: ids.numFmtId > 0 || undefined,
          applyFont: ids.fontId > 0 || undefined,
          applyFill: ids.fillId > 0 || undefined,
          applyBorder: ids.borderId > 0 || undefined,
          applyAlignment: alignment !== '' || undefined,
        },
        alignment,
      ),
    );
    this.known.set(key, place);
    return place;
  }

  /** The number of a rule's look, 18.8.14. */
  look({ bold, italic, underline, strike, text, number, fill, border }: PlainLook): number {
    const font = [
      bold === undefined ? '' : xml('b', bold ? {} : { val: 0 }),
      italic === undefined ? '' : xml('i', italic ? {} : { val: 0 }),
      strike === undefined ? '' : xml('strike', strike ? {} : { val: 0 }),
      text === undefined ? '' : color('color', text),
      underline === undefined ? '' : xml('u', underline ? {} : { val: 'none' }),
    ].join('');
    const format =
      number === undefined
        ? ''
        : xml('numFmt', {
            numFmtId: FIRST_FORMAT + this.codes.place(writeFormatCode(number)),
            formatCode: writeFormatCode(number),
          });
    const lines = border && Object.fromEntries(SIDES.map((side) => [side, border[side] ?? border.around]));
    return this.looks.place(
      xml(
        'dxf',
        {},
        font && xml('font', {}, font),
        format,
        fill === undefined ? '' : lookFill(fill),
        lines ? borderXml(lines, 'of a look') : '',
      ),
    );
  }

  /** The styles part. */
  write(): string {
    const list = (name: string, items: readonly string[]) =>
      items.length ? xml(name, { count: items.length }, ...items) : '';
    return (
      XML_BEGIN +
      xml(
        'styleSheet',
        { xmlns: MAIN_NAMESPACE },
        list(
          'numFmts',
          this.codes.all.map((formatCode, place) => xml('numFmt', { numFmtId: FIRST_FORMAT + place, formatCode })),
        ),
        list('fonts', this.fonts.all),
        list('fills', this.fills.all),
        list('borders', this.borders.all),
        xml('cellStyleXfs', { count: 1 }, xml('xf', { numFmtId: 0, fontId: 0, fillId: 0, borderId: 0 })),
        list('cellXfs', this.formats.all),
        xml('cellStyles', { count: 1 }, xml('cellStyle', { name: 'Normal', xfId: 0, builtinId: 0 })),
        list('dxfs', this.looks.all),
      )
    );
  }
}

function fontXml({ bold, italic, underline, strike, text, sizePx = FIRST_FONT_PX, family }: Style): string {
  return xml(
    'font',
    {},
    bold ? xml('b') : '',
    italic ? xml('i') : '',
    strike ? xml('strike') : '',
    underline ? xml('u') : '',
    xml('sz', { val: (sizePx * 3) / 4 }),
    text === undefined ? '' : color('color', text),
    xml('name', { val: family === 'fixed' ? 'monospace' : family === 'serif' ? 'serif' : 'sans-serif' }),
    xml('family', { val: family === 'fixed' ? 3 : family === 'serif' ? 1 : 2 }),
  );
}

/** In the order of the schema. */
const BORDER_ORDER = ['left', 'right', 'top', 'bottom'] as const;

function borderXml(border: Style['border'], where?: 'of a look'): string {
  const sides = BORDER_ORDER.map((side) => {
    const line = border?.[side];
    return line ? xml(side, { style: lineName(line) }, color('color', line.color)) : where ? '' : xml(side);
  });
  return xml('border', {}, ...sides, where ? '' : xml('diagonal'));
}

function lineName({ style, width }: BorderSide): string {
  if (style === 'double') return 'double';
  if (style === 'dotted') return width > 1 ? 'dotted' : 'hair';
  if (style === 'dashed') return width > 1 ? 'mediumDashed' : 'dashed';
  return itemAt(['thin', 'medium', 'thick'], Math.min(3, width) - 1);
}

const PATTERN_NAMES = { dots: 'gray125', lines: 'lightHorizontal', cross: 'lightGrid', diagonal: 'lightUp' } as const;

/** In a look a plain fill is given by its background. */
function lookFill(fill: Fill): string {
  if (typeof fill === 'object' && 'from' in fill) {
    const stop = (position: number, hex: Hex) => xml('stop', { position }, color('color', hex));
    return xml('fill', {}, xml('gradientFill', { degree: fill.angle ?? 0 }, stop(0, fill.from), stop(1, fill.to)));
  }
  if (typeof fill === 'object' && 'pattern' in fill)
    return xml(
      'fill',
      {},
      xml(
        'patternFill',
        { patternType: PATTERN_NAMES[fill.pattern] },
        color('fgColor', fill.color),
        fill.on ? color('bgColor', fill.on) : '',
      ),
    );
  return xml('fill', {}, xml('patternFill', { patternType: 'solid' }, color('bgColor', groundOf(fill))));
}
