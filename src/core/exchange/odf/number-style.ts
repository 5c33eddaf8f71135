import { isDatePattern } from '../../values/dates/date-format';
import { parseNumberFormat } from '../../values/number-format';
import { elementsOf, textOf, type XmlElement } from '../xml/xml-element';
import { xml, xmlText } from '../xml/write-xml';

/** A number format of ISO/IEC 26300-1, 16.27, as a pattern of UTS #35; undefined where there is none for it. */
export function readNumberStyle(style: XmlElement): string | undefined {
  if (style.name === 'number:boolean-style' || style.name === 'number:text-style') return undefined;
  const isDate = style.name === 'number:date-style' || style.name === 'number:time-style';
  const pattern = elementsOf(style)
    .map((part) => (isDate ? datePart(part, style) : numberPart(part)))
    .join('');
  if (pattern.length === 0 || pattern.length > 64) return undefined;
  return isDate || parseNumberFormat(pattern) ? pattern : undefined;
}

function numberPart(part: XmlElement): string {
  const {
    'number:decimal-places': places,
    'number:min-decimal-places': least = places,
    'number:min-integer-digits': digits = '1',
    'number:grouping': grouping,
  } = part.attributes;
  switch (part.name) {
    case 'number:number':
    case 'number:scientific-number': {
      const whole = '0'.repeat(Math.min(15, Number(digits))) || '#';
      const most = Math.min(20, Number(places ?? 0));
      const fixed = Math.min(most, Number(least ?? 0));
      const fraction = most ? `.${'0'.repeat(fixed)}${'#'.repeat(most - fixed)}` : '';
      return (grouping === 'true' ? `#,##${whole === '#' ? '#' : whole}` : whole) + fraction;
    }
    case 'number:currency-symbol':
    case 'number:text':
      return textOf(part);
    default:
      return '';
  }
}

function datePart(part: XmlElement, style: XmlElement): string {
  const isLong = part.attributes['number:style'] === 'long';
  const halves = elementsOf(style).some(({ name }) => name === 'number:am-pm');
  switch (part.name) {
    case 'number:year':
      return isLong ? 'yyyy' : 'yy';
    case 'number:month':
      return part.attributes['number:textual'] === 'true' ? (isLong ? 'MMMM' : 'MMM') : isLong ? 'MM' : 'M';
    case 'number:day':
      return isLong ? 'dd' : 'd';
    case 'number:day-of-week':
      return isLong ? 'EEEE' : 'EEE';
    case 'number:quarter':
      return isLong ? 'QQQ' : 'Q';
    case 'number:hours':
      return (halves ? 'h' : 'H').repeat(isLong ? 2 : 1);
    case 'number:minutes':
      return isLong ? 'mm' : 'm';
    case 'number:seconds':
      return isLong ? 'ss' : 's';
    case 'number:am-pm':
      return 'a';
    case 'number:text': {
      const text = textOf(part);
      return /[a-zA-Z']/.test(text) ? `'${text.replaceAll("'", "''")}'` : text;
    }
    default:
      return '';
  }
}

/** A pattern as a number style with a name. */
export function writeNumberStyle(pattern: string, name: string): string {
  const about = { 'style:name': name };
  if (isDatePattern(pattern)) return xml('number:date-style', about, dateParts(pattern));
  const format = parseNumberFormat(pattern);
  if (!format) return xml('number:number-style', about, xml('number:number', { 'number:min-integer-digits': 1 }));
  const [, prefix = '', suffix = ''] = /^([^#0.]*)[#0,.]+([\s\S]*)$/.exec(pattern) ?? [];
  const text = (part: string) => (part === '' ? '' : xml('number:text', {}, xmlText(part)));
  const number = xml('number:number', {
    'number:decimal-places': format.maximumFraction,
    // Places that are shown only where they are needed.
    ...(format.minimumFraction < format.maximumFraction ? { 'number:decimal-replacement': '' } : {}),
    'number:min-integer-digits': format.minimumInteger,
    'number:grouping': format.grouping ? 'true' : undefined,
  });
  return xml(
    format.percent ? 'number:percentage-style' : 'number:number-style',
    about,
    text(prefix),
    number,
    text(suffix),
  );
}

function dateParts(pattern: string): string {
  const long = (is: boolean) => ({ 'number:style': is ? 'long' : 'short' });
  return [...pattern.matchAll(/'((?:[^']|'')*)'|([a-zA-Z])\2*|[^a-zA-Z']+/g)]
    .map(([whole, quoted, letter]) => {
      if (quoted !== undefined)
        return xml('number:text', {}, xmlText(quoted === '' ? "'" : quoted.replaceAll("''", "'")));
      const width = whole.length;
      switch (letter) {
        case 'y':
          return xml('number:year', long(width !== 2));
        case 'M':
          return xml('number:month', width > 2 ? { ...long(width > 3), 'number:textual': 'true' } : long(width > 1));
        case 'd':
          return xml('number:day', long(width > 1));
        case 'E':
          return xml('number:day-of-week', long(width > 3));
        case 'Q':
          return xml('number:quarter', long(width > 2));
        case 'H':
        case 'h':
          return xml('number:hours', long(width > 1));
        case 'm':
          return xml('number:minutes', long(width > 1));
        case 's':
          return xml('number:seconds', long(width > 1));
        case 'a':
          return xml('number:am-pm');
        default:
          return xml('number:text', {}, xmlText(whole));
      }
    })
    .join('');
}
