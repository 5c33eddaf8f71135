import { SIDES } from '../../looks/look';
import type { Style } from '../../looks/style';
import { xml, XML_BEGIN } from '../xml/write-xml';
import { pointsOf } from './length';
import { ODF_NAMESPACES } from './namespaces';
import { writeNumberStyle } from './number-style';

/** A condition and the style that it gives. */
export interface WrittenMap {
  readonly condition: string;
  readonly applies: string;
  readonly base: string;
}

/**
 * Gathers the styles of a document, each once: automatic ones for cells, columns and rows, and named ones for looks.
 */
export class OdfStylesWriter {
  private readonly automatic = new Map<string, string>();
  private readonly met = new WeakMap<Style, string>();
  private readonly named: string[] = [];
  private readonly formats = new Map<string, string>();
  private readonly namedFormats = new Map<string, string>();

  /** The name of a cell's style; undefined where it has none. */
  cell(style: Style | undefined, maps: readonly WrittenMap[]): string | undefined {
    if (maps.length > 0) return this.placeCell(style, maps);
    if (!style) return undefined;
    let name = this.met.get(style);
    if (name === undefined) this.met.set(style, (name = this.placeCell(style, maps)));
    return name;
  }

  private placeCell(style: Style | undefined, maps: readonly WrittenMap[]): string {
    return this.place('ce', JSON.stringify([style, maps]), (name) =>
      xml(
        'style:style',
        {
          'style:name': name,
          'style:family': 'table-cell',
          'style:parent-style-name': 'Default',
          'style:data-style-name': this.format(style?.number, this.formats, 'N'),
        },
        properties(style ?? {}),
        ...maps.map(({ condition, applies, base }) =>
          xml('style:map', {
            'style:condition': condition,
            'style:apply-style-name': applies,
            'style:base-cell-address': base,
          }),
        ),
      ),
    );
  }

  column(widthPx: number): string {
    return this.place('co', String(widthPx), (name) =>
      xml(
        'style:style',
        { 'style:name': name, 'style:family': 'table-column' },
        xml('style:table-column-properties', { 'style:column-width': pointsOf(widthPx) }),
      ),
    );
  }

  row(heightPx: number): string {
    return this.place('ro', String(heightPx), (name) =>
      xml(
        'style:style',
        { 'style:name': name, 'style:family': 'table-row' },
        xml('style:table-row-properties', {
          'style:row-height': pointsOf(heightPx),
          'style:use-optimal-row-height': 'false',
        }),
      ),
    );
  }

  /** The name of a style that shows a rule's look, called as the rule is. */
  look(style: Style, displayName: string): string {
    const name = `look-${this.named.length + 1}`;
    this.named.push(
      xml(
        'style:style',
        {
          'style:name': name,
          'style:display-name': displayName,
          'style:family': 'table-cell',
          'style:parent-style-name': 'Default',
          'style:data-style-name': this.format(style.number, this.namedFormats, 'L'),
        },
        properties(style),
      ),
    );
    return name;
  }

  private format(pattern: string | undefined, known: Map<string, string>, letter: string): string | undefined {
    if (pattern === undefined) return undefined;
    const name = known.get(pattern) ?? `${letter}${known.size + 1}`;
    known.set(pattern, name);
    return name;
  }

  private readonly names = new Map<string, string>();
  private place(letters: string, key: string, write: (name: string) => string): string {
    const known = this.names.get(`${letters} ${key}`);
    if (known !== undefined) return known;
    const name = `${letters}${this.names.size + 1}`;
    this.names.set(`${letters} ${key}`, name);
    this.automatic.set(name, write(name));
    return name;
  }

  /** The automatic styles, as the content holds them. */
  get automaticStyles(): string {
    return xml(
      'office:automatic-styles',
      {},
      ...[...this.formats].map(([pattern, name]) => writeNumberStyle(pattern, name)),
      ...this.automatic.values(),
    );
  }

  /** The part of named styles. */
  get stylesPart(): string {
    return (
      XML_BEGIN +
      xml(
        'office:document-styles',
        { ...NAMESPACES, 'office:version': '1.2' },
        xml(
          'office:styles',
          {},
          ...[...this.namedFormats].map(([pattern, name]) => writeNumberStyle(pattern, name)),
          xml('style:style', { 'style:name': 'Default', 'style:family': 'table-cell' }),
          ...this.named,
        ),
      )
    );
  }
}

const { manifest: _, of: __, ...CONTENT } = ODF_NAMESPACES;

/** The namespaces that a part declares. */
export const NAMESPACES = Object.fromEntries(
  Object.entries({ ...CONTENT, of: ODF_NAMESPACES.of }).map(([prefix, namespace]) => [`xmlns:${prefix}`, namespace]),
);

function properties(style: Style): string {
  const { fill, text, bold, italic, underline, strike, border, align, stand, wrap, sizePx, family } = style;
  const line = (side: (typeof SIDES)[number]) => {
    const given = border?.[side];
    return given && `${pointsOf(given.width)} ${given.style} ${given.color}`;
  };
  const part = (name: string, attributes: NonNullable<Parameters<typeof xml>[1]>) =>
    Object.values(attributes).some((value) => value !== undefined) ? xml(name, attributes) : '';
  return [
    part('style:table-cell-properties', {
      'fo:background-color': fill,
      ...Object.fromEntries(SIDES.map((side) => [`fo:border-${side}`, line(side)])),
      'style:vertical-align': stand,
      'fo:wrap-option': wrap ? 'wrap' : undefined,
    }),
    part('style:paragraph-properties', { 'fo:text-align': align }),
    part('style:text-properties', {
      'fo:color': text,
      'fo:font-weight': bold === undefined ? undefined : bold ? 'bold' : 'normal',
      'fo:font-style': italic === undefined ? undefined : italic ? 'italic' : 'normal',
      'style:text-underline-style': underline === undefined ? undefined : underline ? 'solid' : 'none',
      'style:text-line-through-style': strike === undefined ? undefined : strike ? 'solid' : 'none',
      'fo:font-size': sizePx === undefined ? undefined : pointsOf(sizePx),
      'fo:font-family':
        family === undefined || family === 'plain' ? undefined : family === 'fixed' ? 'monospace' : 'serif',
    }),
  ].join('');
}
