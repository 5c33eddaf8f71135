import { SIDES, type BorderSide, type Side } from '../../looks/look';
import type { Style } from '../../looks/style';
import { childOf, childrenOf, elementsOf, type XmlElement } from '../xml/xml-element';
import { readLength } from './length';
import { readNumberStyle } from './number-style';

/** A condition under which a cell has another style, 16.3. */
export interface StyleMap {
  readonly condition: string;
  readonly applies: string;
  readonly base: string;
}

export interface OdfStyle {
  readonly style: Style;
  readonly maps: readonly StyleMap[];
  /** Its display name. */
  readonly displayName: string | undefined;
  readonly widthPx?: number;
  readonly heightPx?: number;
}

/** The styles of a document by family and name, each with what it takes from its parents. */
export class OdfStyles {
  private readonly elements = new Map<string, XmlElement>();
  private readonly formats = new Map<string, string>();
  private readonly known = new Map<string, OdfStyle>();

  /**
   * Adds the children of a `styles` or `automatic-styles` element. Number formats of all of them must be there before a
   * style is asked for.
   */
  add(parent: XmlElement | undefined): void {
    for (const element of elementsOf(parent)) {
      const name = element.attributes['style:name'] ?? '';
      if (element.name === 'style:style')
        this.elements.set(`${element.attributes['style:family'] ?? ''} ${name}`, element);
      else if (element.name.startsWith('number:')) {
        const pattern = readNumberStyle(element);
        if (pattern !== undefined) this.formats.set(name, pattern);
      }
    }
  }

  find(family: 'table-cell' | 'table-column' | 'table-row', name: string | undefined, depth = 0): OdfStyle | undefined {
    if (name === undefined) return undefined;
    const key = `${family} ${name}`;
    const known = this.known.get(key);
    const element = this.elements.get(key);
    if (known || !element) return known;
    // A style that is its own parent ends here; what all cells have by default is not said again.
    const parent =
      depth < 20 && element.attributes['style:parent-style-name'] !== 'Default'
        ? this.find(family, element.attributes['style:parent-style-name'], depth + 1)
        : undefined;
    const style = this.read(element, parent);
    this.known.set(key, style);
    return style;
  }

  private read(element: XmlElement, parent: OdfStyle | undefined): OdfStyle {
    const { 'style:data-style-name': format = '', 'style:display-name': displayName } = element.attributes;
    const number = this.formats.get(format);
    const widthPx = readLength(childOf(element, 'style:table-column-properties')?.attributes['style:column-width']);
    const row = childOf(element, 'style:table-row-properties')?.attributes;
    const heightPx =
      row?.['style:use-optimal-row-height'] === 'true' ? undefined : readLength(row?.['style:row-height']);
    return {
      displayName,
      style: { ...parent?.style, ...readProperties(element), ...(number === undefined ? {} : { number }) },
      maps: [
        ...childrenOf(element, 'style:map').map(({ attributes }) => ({
          condition: attributes['style:condition'] ?? '',
          applies: attributes['style:apply-style-name'] ?? '',
          base: attributes['style:base-cell-address'] ?? '',
        })),
        ...(parent?.maps ?? []),
      ],
      ...(widthPx === undefined ? {} : { widthPx: clamped(widthPx, 24, 2000) }),
      ...(heightPx === undefined ? {} : { heightPx: clamped(heightPx, 16, 1000) }),
    };
  }
}

const clamped = (px: number, least: number, most: number): number => Math.max(least, Math.min(most, Math.round(px)));

const HEX = /^#[0-9a-f]{6}$/i;
const ACROSS: Readonly<Record<string, Style['align']>> = {
  start: 'start',
  left: 'start',
  center: 'center',
  end: 'end',
  right: 'end',
};
const DOWN: Readonly<Record<string, Style['stand']>> = { top: 'top', middle: 'middle', bottom: 'bottom' };

function readProperties(element: XmlElement): Style {
  const cell = childOf(element, 'style:table-cell-properties')?.attributes ?? {};
  const text = childOf(element, 'style:text-properties')?.attributes ?? {};
  const paragraph = childOf(element, 'style:paragraph-properties')?.attributes ?? {};
  const style: { -readonly [K in keyof Style]: Style[K] } = {};
  const fill = cell['fo:background-color'];
  if (fill && HEX.test(fill)) style.fill = fill.toLowerCase();
  const color = text['fo:color'];
  if (color && HEX.test(color)) style.text = color.toLowerCase();
  const weight = text['fo:font-weight'];
  if (weight !== undefined) style.bold = weight === 'bold' || Number(weight) >= 600;
  if (text['fo:font-style'] !== undefined) style.italic = text['fo:font-style'] !== 'normal';
  if (text['style:text-underline-style'] !== undefined) style.underline = text['style:text-underline-style'] !== 'none';
  if (text['style:text-line-through-style'] !== undefined)
    style.strike = text['style:text-line-through-style'] !== 'none';
  const size = readLength(text['fo:font-size']);
  if (size !== undefined) style.sizePx = clamped(size, 8, 48);
  const align = ACROSS[paragraph['fo:text-align'] ?? ''];
  if (align) style.align = align;
  const stand = DOWN[cell['style:vertical-align'] ?? ''];
  if (stand) style.stand = stand;
  if (cell['fo:wrap-option'] === 'wrap') style.wrap = true;
  const border = readBorder(cell);
  if (border) style.border = border;
  return style;
}

function readBorder(cell: Readonly<Record<string, string>>): Partial<Record<Side, BorderSide>> | undefined {
  const sides = SIDES.flatMap((side) => {
    const line = borderSide(cell[`fo:border-${side}`] ?? cell['fo:border']);
    return line ? [[side, line] as const] : [];
  });
  return sides.length ? Object.fromEntries(sides) : undefined;
}

/** A line as width, style and colour, 20.183. */
function borderSide(text: string | undefined): BorderSide | undefined {
  const [width, style = '', color] = (text ?? '').split(/\s+/);
  const px = readLength(width);
  if (px === undefined || !color || !HEX.test(color)) return undefined;
  const known = (['dashed', 'dotted', 'double'] as const).find((each) => style.startsWith(each.slice(0, 4)));
  return { style: known ?? 'solid', width: Math.max(1, Math.min(4, Math.round(px))), color: color.toLowerCase() };
}
