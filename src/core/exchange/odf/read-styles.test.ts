import { describe, expect, test } from 'vitest';
import { readXmlWhole } from '../xml/read-xml';
import { pointsOf, readLength } from './length';
import { ODF_NAMESPACES, ODF_PREFIXES } from './namespaces';
import { OdfStyles } from './read-styles';

const NAMESPACES = Object.entries(ODF_NAMESPACES)
  .map(([prefix, namespace]) => `xmlns:${prefix}="${namespace}"`)
  .join(' ');

/** The styles of a document, those of one element after another. */
function stylesOf(...elements: readonly string[]): OdfStyles {
  const styles = new OdfStyles();
  for (const content of elements)
    styles.add(
      readXmlWhole(
        new TextEncoder().encode(`<office:styles ${NAMESPACES}>${content}</office:styles>`),
        'styles.xml',
        ODF_PREFIXES,
      ),
    );
  return styles;
}
const cell = (name: string, content: string, rest = '') =>
  `<style:style style:name="${name}" style:family="table-cell" ${rest}>${content}</style:style>`;
const styleOf = (content: string) => stylesOf(cell('ce1', content)).find('table-cell', 'ce1')!.style;

// The meaning of the attributes of ISO/IEC 26300-1, 17.16 to 17.18 and 20, by hand.
describe('formatting of cells', () => {
  test.each([
    [
      '<style:text-properties fo:font-weight="bold" fo:font-style="italic" fo:color="#336699"/>',
      { bold: true, italic: true, text: '#336699' },
    ],
    ['<style:text-properties fo:font-weight="700"/>', { bold: true }],
    [
      '<style:text-properties fo:font-weight="normal" style:text-underline-style="none"/>',
      { bold: false, underline: false },
    ],
    [
      '<style:text-properties style:text-underline-style="solid" style:text-line-through-style="solid"/>',
      { underline: true, strike: true },
    ],
    // 18 points are 24 pixels of 1/96 inch.
    ['<style:text-properties fo:font-size="18pt"/>', { sizePx: 24 }],
    [
      '<style:table-cell-properties fo:background-color="#F7D3C8" style:vertical-align="middle" fo:wrap-option="wrap"/>',
      { fill: '#f7d3c8', stand: 'middle', wrap: true },
    ],
    ['<style:table-cell-properties fo:background-color="transparent"/>', {}],
    ['<style:paragraph-properties fo:text-align="end"/>', { align: 'end' }],
    [
      '<style:table-cell-properties fo:border-left="0.75pt dashed #806040" fo:border-top="none"/>',
      { border: { left: { style: 'dashed', width: 1, color: '#806040' } } },
    ],
  ])('%s', (content, style) => {
    expect(styleOf(content)).toEqual(style);
  });

  test('one border for all sides', () => {
    const line = { style: 'solid', width: 2, color: '#000000' };
    expect(styleOf('<style:table-cell-properties fo:border="1.5pt solid #000000"/>')).toEqual({
      border: { top: line, right: line, bottom: line, left: line },
    });
  });

  test('what a style does not say it has from its parent, also from another part; one that is its own parent ends', () => {
    const parent = cell('Base', '<style:text-properties fo:font-weight="bold" fo:color="#112233"/>');
    const child = cell('ce1', '<style:text-properties fo:color="#445566"/>', 'style:parent-style-name="Base"');
    expect(stylesOf(parent, child).find('table-cell', 'ce1')!.style).toEqual({ bold: true, text: '#445566' });
    const itself = cell('ce1', '<style:text-properties fo:font-style="italic"/>', 'style:parent-style-name="ce1"');
    expect(stylesOf(itself).find('table-cell', 'ce1')!.style).toEqual({ italic: true });
  });

  test('a number format and conditions', () => {
    const format =
      '<number:number-style style:name="N1"><number:number number:decimal-places="2" number:min-integer-digits="1"/></number:number-style>';
    const map =
      '<style:map style:condition="cell-content()&lt;5" style:apply-style-name="Low" style:base-cell-address="Sheet.A1"/>';
    expect(stylesOf(format, cell('ce1', map, 'style:data-style-name="N1"')).find('table-cell', 'ce1')).toMatchObject({
      style: { number: '0.00' },
      maps: [{ condition: 'cell-content()<5', applies: 'Low', base: 'Sheet.A1' }],
    });
  });
});

test('widths and heights, but not those that follow from the content', () => {
  const styles = stylesOf(
    '<style:style style:name="co1" style:family="table-column"><style:table-column-properties style:column-width="1in"/></style:style>',
    '<style:style style:name="ro1" style:family="table-row"><style:table-row-properties style:row-height="30pt"/></style:style>',
    '<style:style style:name="ro2" style:family="table-row"><style:table-row-properties style:row-height="30pt" style:use-optimal-row-height="true"/></style:style>',
  );
  expect(styles.find('table-column', 'co1')!.widthPx).toBe(96);
  expect(styles.find('table-row', 'ro1')!.heightPx).toBe(40);
  expect(styles.find('table-row', 'ro2')!.heightPx).toBeUndefined();
  expect(styles.find('table-row', 'gone')).toBeUndefined();
});

// CSS Values and Units 3, 6.2: an inch is 96 px, 72 pt, 6 pc, 2.54 cm and 25.4 mm.
test.each([
  ['1in', 96],
  ['72pt', 96],
  ['6pc', 96],
  ['2.54cm', 96],
  ['25.4mm', 96],
  ['-0.5in', -48],
  ['12px', 12],
])('%s', (text, px) => {
  expect(readLength(text)).toBeCloseTo(px, 10);
});

test('other units are none; what is written is read again', () => {
  for (const text of ['50%', '2em', 'auto', '', undefined]) expect(readLength(text)).toBeUndefined();
  for (const px of [24, 81, 100, 317]) expect(readLength(pointsOf(px))).toBeCloseTo(px, 1);
});
