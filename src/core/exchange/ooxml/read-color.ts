import { hsl } from 'd3-color';
import type { Hex } from '../../looks/look';
import { childOf, elementsOf, type XmlElement } from '../xml/xml-element';

/** The indexed colours, from 0: ISO/IEC 29500-1, 18.8.27. */
const INDEXED =
  '000000 FFFFFF FF0000 00FF00 0000FF FFFF00 FF00FF 00FFFF 000000 FFFFFF FF0000 00FF00 0000FF FFFF00 FF00FF 00FFFF 800000 008000 000080 808000 800080 008080 C0C0C0 808080 9999FF 993366 FFFFCC CCFFFF 660066 FF8080 0066CC CCCCFF 000080 FF00FF FFFF00 00FFFF 800080 800000 008080 0000FF 00CCFF CCFFFF CCFFCC FFFF99 99CCFF FF99CC CC99FF FFCC99 3366FF 33CCCC 99CC00 FFCC00 FF9900 FF6600 666699 969696 003366 339966 003300 333300 993300 993366 333399 333333'.split(
    ' ',
  );

/** The order in which a theme's colours are counted: light and dark change places, 20.1.6.2 and 18.8.3. */
const THEME_ORDER = [
  'lt1',
  'dk1',
  'lt2',
  'dk2',
  'accent1',
  'accent2',
  'accent3',
  'accent4',
  'accent5',
  'accent6',
  'hlink',
  'folHlink',
];

/** Colours of a theme part, in the order in which they are counted. */
export function themeColors(theme: XmlElement | undefined): readonly (Hex | undefined)[] {
  const scheme = childOf(childOf(theme, 'a:themeElements'), 'a:clrScheme');
  return THEME_ORDER.map((name) => {
    const [color] = elementsOf(childOf(scheme, `a:${name}`));
    return hexOf(color?.attributes.lastClr ?? color?.attributes.val);
  });
}

/**
 * A colour element, 18.8.19: outright, of the theme, or by number, and lighter or darker by its tint; undefined for the
 * automatic one.
 */
export function readColor(element: XmlElement | undefined, theme: readonly (Hex | undefined)[]): Hex | undefined {
  if (!element) return undefined;
  const { rgb, theme: place, indexed, tint } = element.attributes;
  const plain =
    hexOf(rgb) ??
    (place === undefined ? undefined : theme[Number(place)]) ??
    (indexed === undefined ? undefined : hexOf(INDEXED[Number(indexed)]));
  return plain === undefined || tint === undefined || Number(tint) === 0 ? plain : tinted(plain, Number(tint));
}

function hexOf(text: string | undefined): Hex | undefined {
  const digits = /^(?:[0-9a-f]{2})?([0-9a-f]{6})$/i.exec(text ?? '')?.[1];
  return digits && `#${digits.toLowerCase()}`;
}

/** Lightness is taken towards white or black by that share, as 18.8.19 says. */
function tinted(hex: Hex, tint: number): Hex {
  const color = hsl(hex);
  color.l = tint < 0 ? color.l * (1 + tint) : color.l * (1 - tint) + tint;
  return color.formatHex();
}
