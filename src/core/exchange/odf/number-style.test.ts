import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readXmlWhole } from '../xml/read-xml';
import { ODF_NAMESPACES, ODF_PREFIXES } from './namespaces';
import { readNumberStyle, writeNumberStyle } from './number-style';

/** A number style as it stands in a document, read. */
const styleOf = (text: string) =>
  readXmlWhole(
    new TextEncoder().encode(
      text.replace(
        /^<[\w:-]+/,
        `$& xmlns:number="${ODF_NAMESPACES.number}" xmlns:style="${ODF_NAMESPACES.style}" xmlns:fo="${ODF_NAMESPACES.fo}"`,
      ),
    ),
    'styles.xml',
    ODF_PREFIXES,
  );

// ISO/IEC 26300-1, 16.27: what each attribute says, as a pattern of UTS #35 by hand.
test.each([
  [
    '<number:number-style><number:number number:decimal-places="2" number:min-integer-digits="1"/></number:number-style>',
    '0.00',
  ],
  [
    '<number:number-style><number:number number:decimal-places="0" number:min-integer-digits="1" number:grouping="true"/></number:number-style>',
    '#,##0',
  ],
  [
    '<number:number-style><number:number number:decimal-places="3" number:min-decimal-places="1" number:min-integer-digits="1"/></number:number-style>',
    '0.0##',
  ],
  [
    '<number:percentage-style><number:number number:decimal-places="1" number:min-integer-digits="1"/><number:text>%</number:text></number:percentage-style>',
    '0.0%',
  ],
  [
    '<number:currency-style><number:currency-symbol>€</number:currency-symbol><number:number number:decimal-places="2" number:min-integer-digits="1"/></number:currency-style>',
    '€0.00',
  ],
  [
    '<number:date-style><number:day number:style="long"/><number:text>.</number:text><number:month number:style="long"/><number:text>.</number:text><number:year number:style="long"/></number:date-style>',
    'dd.MM.yyyy',
  ],
  [
    '<number:date-style><number:day-of-week number:style="long"/><number:text> the </number:text><number:day/><number:text> </number:text><number:month number:textual="true" number:style="long"/></number:date-style>',
    "EEEE' the 'd MMMM",
  ],
  [
    '<number:date-style><number:quarter number:style="long"/><number:text> </number:text><number:year/></number:date-style>',
    'QQQ yy',
  ],
  [
    '<number:time-style><number:hours number:style="long"/><number:text>:</number:text><number:minutes number:style="long"/></number:time-style>',
    'HH:mm',
  ],
  [
    '<number:time-style><number:hours/><number:text>:</number:text><number:minutes number:style="long"/><number:text> </number:text><number:am-pm/></number:time-style>',
    'h:mm a',
  ],
])('%s', (text, pattern) => {
  expect(readNumberStyle(styleOf(text))).toBe(pattern);
});

test.each([
  '<number:text-style><number:text-content/></number:text-style>',
  '<number:boolean-style><number:boolean/></number:boolean-style>',
  '<number:number-style/>',
])('there is no pattern for %s', (text) => {
  expect(readNumberStyle(styleOf(text))).toBeUndefined();
});

const digits = fc.constantFrom('0', '00', '#,##0', '0.0', '0.00', '#,##0.000');
const numbers = fc
  .tuple(fc.constantFrom('', '€', '± '), digits, fc.constantFrom('', '%', ' mg/L'))
  .map((parts) => parts.join(''));
const dates = fc.constantFrom(
  'yyyy-MM-dd',
  'd MMM yyyy',
  'EEEE d MMMM',
  "d'th' MMM yy",
  'dd.MM.yyyy HH:mm',
  'h:mm a',
  'HH:mm:ss',
  'QQQ yyyy',
  'EEE d',
);

test('what is written is read as the same pattern', () => {
  fc.assert(
    fc.property(fc.oneof(numbers, dates), (pattern) => {
      expect(readNumberStyle(styleOf(writeNumberStyle(pattern, 'N1')))).toBe(pattern);
    }),
  );
});
