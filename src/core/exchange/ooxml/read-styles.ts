import type { BorderSide, Fill, Hex, Look, Side } from '../../looks/look';
import { SIDES } from '../../looks/look';
import type { Style } from '../../looks/style';
import { isTrue } from '../xml/xml-boolean';
import { childOf, childrenOf, elementsOf, type XmlElement } from '../xml/xml-element';
import { BUILT_IN, readFormatCode, type ReadFormat } from './number-format';
import { readColor } from './read-color';

/** The formatting that cells of a workbook refer to by number. */
export interface OoxmlStyles {
  /** By the number of a cell's `s`. */
  readonly cells: readonly CellFormat[];
  /** The looks of conditional formats, by `dxfId`. */
  readonly looks: readonly Look[];
}

export interface CellFormat {
  readonly style: Style | undefined;
  readonly format: ReadFormat;
}

const PLAIN_FORMAT: ReadFormat = { pattern: null, isDate: false, isLess: false };
export const PLAIN_CELL: CellFormat = { style: undefined, format: PLAIN_FORMAT };

type Theme = readonly (Hex | undefined)[];

/** Reads the styles part, 18.8. What is the same as the file's first font is not said again. */
export function readStyles(root: XmlElement | undefined, theme: Theme): OoxmlStyles {
  const codes = new Map(
    childrenOf(childOf(root, 'numFmts'), 'numFmt').map(({ attributes }) => [
      Number(attributes.numFmtId),
      attributes.formatCode ?? 'General',
    ]),
  );
  const fontElements = childrenOf(childOf(root, 'fonts'), 'font');
  const first = fontElements[0];
  const fonts = fontElements.map((font) => readFont(font, theme, first));
  const fills = childrenOf(childOf(root, 'fills'), 'fill').map((fill) => readFill(fill, theme));
  const borders = childrenOf(childOf(root, 'borders'), 'border').map((border) => readBorder(border, theme));
  const formats = new Map<number, ReadFormat>();
  const formatOf = (id: number): ReadFormat => {
    let format = formats.get(id);
    if (!format) formats.set(id, (format = readFormatCode(codes.get(id) ?? BUILT_IN[id] ?? 'General')));
    return format;
  };
  const cells = childrenOf(childOf(root, 'cellXfs'), 'xf').map((xf): CellFormat => {
    const { numFmtId = '0', fontId = '0', fillId = '0', borderId = '0' } = xf.attributes;
    const format = formatOf(Number(numFmtId));
    const fill = plainFill(fills[Number(fillId)]);
    const border = borders[Number(borderId)];
    return {
      format,
      style: given({
        ...fonts[Number(fontId)],
        ...(fill === undefined ? {} : { fill }),
        ...(border ? { border } : {}),
        ...(format.pattern === null ? {} : { number: format.pattern }),
        ...readAlignment(childOf(xf, 'alignment')),
      }),
    };
  });
  return { cells, looks: childrenOf(childOf(root, 'dxfs'), 'dxf').map((dxf) => readLook(dxf, theme)) };
}

/** The look of a differential format, 18.8.14. */
function readLook(dxf: XmlElement, theme: Theme): Look {
  const { sizePx: _, family: __, ...font } = readFont(childOf(dxf, 'font'), theme, undefined);
  const fill = readFill(childOf(dxf, 'fill'), theme, 'of a look');
  const border = readBorder(childOf(dxf, 'border'), theme);
  const code = childOf(dxf, 'numFmt')?.attributes.formatCode;
  const pattern = code === undefined ? null : readFormatCode(code).pattern;
  return {
    ...font,
    ...(fill === undefined ? {} : { fill }),
    ...(border ? { border } : {}),
    ...(pattern === null ? {} : { number: pattern }),
  };
}

const given = <T extends object>(value: T): T | undefined => (Object.keys(value).length ? value : undefined);

/** A flag element: there is yes, unless it says no. */
const flag = (element: XmlElement | undefined): boolean | undefined =>
  element ? !/^(0|false|none)$/i.test(element.attributes.val ?? '1') : undefined;

function readFont(font: XmlElement | undefined, theme: Theme, first: XmlElement | undefined): Style {
  const { b, i, u, strike } = Object.fromEntries(
    ['b', 'i', 'u', 'strike'].map((name) => [name, flag(childOf(font, name))]),
  );
  const colorElement = childOf(font, 'color');
  // The theme's dark text is the text of a page, whatever its theme.
  const color =
    colorElement?.attributes.theme === '1' && !colorElement.attributes.tint
      ? undefined
      : readColor(colorElement, theme);
  const size = (of: XmlElement | undefined) => Number(childOf(of, 'sz')?.attributes.val ?? NaN);
  const sizePx = Math.round((size(font) * 4) / 3);
  const family = { '1': 'serif', '3': 'fixed' }[childOf(font, 'family')?.attributes.val ?? ''] as Style['family'];
  const firstFamily = childOf(first, 'family')?.attributes.val;
  return {
    ...(color === undefined ? {} : { text: color }),
    ...(b === undefined ? {} : { bold: b }),
    ...(i === undefined ? {} : { italic: i }),
    ...(u === undefined ? {} : { underline: u }),
    ...(strike === undefined ? {} : { strike }),
    ...(first && size(font) !== size(first) && sizePx >= 8 && sizePx <= 48 ? { sizePx } : {}),
    ...(first && family && firstFamily !== childOf(font, 'family')?.attributes.val ? { family } : {}),
  };
}

/** Kinds of patterns, 18.18.55, as the four that there are here. */
const PATTERNS: readonly (readonly [RegExp, 'dots' | 'lines' | 'cross' | 'diagonal'])[] = [
  [/gray/i, 'dots'],
  [/horizontal|vertical/i, 'lines'],
  [/grid|trellis/i, 'cross'],
  [/down|up/i, 'diagonal'],
];

/** A fill, 18.8.20. In a look a plain fill is given by its background, in a cell by its foreground. */
function readFill(fill: XmlElement | undefined, theme: Theme, where?: 'of a look'): Fill | undefined {
  const gradient = childOf(fill, 'gradientFill');
  if (gradient) {
    const colors = childrenOf(gradient, 'stop').map((stop) => readColor(childOf(stop, 'color'), theme));
    const [from, to] = [colors[0], colors.at(-1)];
    return from && to
      ? { from, to, ...(gradient.attributes.degree ? { angle: Number(gradient.attributes.degree) } : {}) }
      : undefined;
  }
  const pattern = childOf(fill, 'patternFill');
  const kind = pattern?.attributes.patternType ?? (where ? 'solid' : 'none');
  const front = readColor(childOf(pattern, 'fgColor'), theme);
  const back = readColor(childOf(pattern, 'bgColor'), theme);
  if (kind === 'none') return undefined;
  if (kind === 'solid') return where ? (back ?? front) : front;
  const shape = PATTERNS.find(([words]) => words.test(kind))?.[1] ?? 'dots';
  return { pattern: shape, color: front ?? '#000000', ...(back ? { on: back } : {}) };
}

/** Ordinary formatting has plain fills only. */
function plainFill(fill: Fill | undefined): Hex | undefined {
  if (fill === undefined || typeof fill === 'string') return fill;
  return 'from' in fill ? fill.from : 'pattern' in fill ? (fill.on ?? fill.color) : fill.color;
}

const LINES: Readonly<Record<string, Pick<BorderSide, 'style' | 'width'>>> = {
  hair: { style: 'dotted', width: 1 },
  dotted: { style: 'dotted', width: 2 },
  thin: { style: 'solid', width: 1 },
  medium: { style: 'solid', width: 2 },
  thick: { style: 'solid', width: 3 },
  double: { style: 'double', width: 3 },
  dashed: { style: 'dashed', width: 1 },
  dashDot: { style: 'dashed', width: 1 },
  dashDotDot: { style: 'dashed', width: 1 },
  mediumDashed: { style: 'dashed', width: 2 },
  mediumDashDot: { style: 'dashed', width: 2 },
  mediumDashDotDot: { style: 'dashed', width: 2 },
  slantDashDot: { style: 'dashed', width: 2 },
};

function readBorder(border: XmlElement | undefined, theme: Theme): Partial<Record<Side, BorderSide>> | undefined {
  const sides = elementsOf(border).flatMap((element) => {
    const name = { start: 'left', end: 'right' }[element.name] ?? element.name;
    const side = SIDES.find((each) => each === name);
    const line = LINES[element.attributes.style ?? ''];
    if (!line || !side) return [];
    return [[side, { ...line, color: readColor(childOf(element, 'color'), theme) ?? '#000000' }] as const];
  });
  return sides.length ? Object.fromEntries(sides) : undefined;
}

const ACROSS: Readonly<Record<string, Style['align']>> = {
  left: 'start',
  center: 'center',
  centerContinuous: 'center',
  right: 'end',
};
const DOWN: Readonly<Record<string, Style['stand']>> = { top: 'top', center: 'middle', bottom: 'bottom' };

function readAlignment(alignment: XmlElement | undefined): Pick<Style, 'align' | 'stand' | 'wrap'> {
  const { horizontal = '', vertical = '', wrapText } = alignment?.attributes ?? {};
  const align = ACROSS[horizontal];
  const stand = DOWN[vertical];
  return { ...(align ? { align } : {}), ...(stand ? { stand } : {}), ...(isTrue(wrapText) ? { wrap: true } : {}) };
}
