import { describe, expect, test } from 'vitest';
import { readXmlWhole } from '../xml/read-xml';
import { MAIN_NAMESPACE, OOXML_PREFIXES } from './prefixes';
import { readStyles } from './read-styles';

interface Parts {
  readonly fonts?: string;
  readonly fills?: string;
  readonly borders?: string;
  readonly cells?: string;
  readonly looks?: string;
  readonly codes?: string;
}

/** The formatting of a styles part; its first font, fill and border are the plain ones that every file begins with. */
const stylesOf = ({ fonts = '', fills = '', borders = '', cells = '', looks = '', codes = '' }: Parts) =>
  readStyles(
    readXmlWhole(
      new TextEncoder().encode(
        `<styleSheet xmlns="${MAIN_NAMESPACE}"><numFmts>${codes}</numFmts><fonts><font><sz val="11"/><family val="2"/></font>${fonts}</fonts>` +
          `<fills><fill><patternFill patternType="none"/></fill>${fills}</fills><borders><border/>${borders}</borders>` +
          `<cellXfs><xf/>${cells}</cellXfs><dxfs>${looks}</dxfs></styleSheet>`,
      ),
      'xl/styles.xml',
      OOXML_PREFIXES,
    ),
    [],
  );
const styleOf = (parts: Parts) => stylesOf(parts).cells[1]!.style;
const lookOf = (looks: string) => stylesOf({ looks }).looks[0];

// The meaning of the elements of ISO/IEC 29500-1, 18.8, by hand.
describe('formatting of cells', () => {
  test.each<[string, Parts, object]>([
    [
      'flags, also with their value',
      { fonts: '<font><b/><i val="1"/><strike val="true"/><u val="double"/></font>' },
      { bold: true, italic: true, strike: true, underline: true },
    ],
    ['flags that are off', { fonts: '<font><b val="0"/><u val="none"/></font>' }, { bold: false, underline: false }],
    ['a colour', { fonts: '<font><color rgb="FF336699"/></font>' }, { text: '#336699' }],
    // 18 points are 24 pixels of 1/96 inch.
    [
      'another size and family than the first font',
      { fonts: '<font><sz val="18"/><family val="1"/></font>' },
      { sizePx: 24, family: 'serif' },
    ],
  ])('%s', (_, parts, style) => {
    expect(styleOf({ ...parts, cells: '<xf fontId="1"/>' })).toEqual(style);
  });

  test('fills are read from their foreground, borders from their sides', () => {
    expect(
      styleOf({
        fills: '<fill><patternFill patternType="solid"><fgColor rgb="FFF7D3C8"/></patternFill></fill>',
        cells: '<xf fillId="1"/>',
      }),
    ).toEqual({
      fill: '#f7d3c8',
    });
    expect(
      styleOf({
        borders:
          '<border><start style="thin"><color rgb="FF806040"/></start><top style="double"/><bottom style="none"/><diagonal style="thin"/></border>',
        cells: '<xf borderId="1"/>',
      }),
    ).toEqual({
      border: {
        left: { style: 'solid', width: 1, color: '#806040' },
        top: { style: 'double', width: 3, color: '#000000' },
      },
    });
  });

  test('places and wrapping, and number formats, built in and their own', () => {
    expect(styleOf({ cells: '<xf><alignment horizontal="right" vertical="center" wrapText="1"/></xf>' })).toEqual({
      align: 'end',
      stand: 'middle',
      wrap: true,
    });
    expect(styleOf({ cells: '<xf numFmtId="10"/>' })).toEqual({ number: '0.00%' });
    expect(
      styleOf({ codes: '<numFmt numFmtId="164" formatCode="0.0&quot; mg/L&quot;"/>', cells: '<xf numFmtId="164"/>' }),
    ).toEqual({
      number: '0.0 mg/L',
    });
  });

  test('what is as the file begins is not said', () => {
    const { cells } = stylesOf({ fonts: '<font><sz val="11"/><family val="2"/></font>', cells: '<xf fontId="1"/>' });
    expect(cells.map(({ style }) => style)).toEqual([undefined, undefined]);
  });
});

describe('looks of conditional formats, 18.8.14', () => {
  test('a plain fill is read from its background there', () => {
    expect(
      lookOf(
        '<dxf><font><b/><color rgb="FF9C0006"/></font><fill><patternFill><bgColor rgb="FFFFC7CE"/></patternFill></fill></dxf>',
      ),
    ).toEqual({
      bold: true,
      text: '#9c0006',
      fill: '#ffc7ce',
    });
  });

  test('patterns and gradients stay what they are', () => {
    expect(
      lookOf(
        '<dxf><fill><patternFill patternType="lightUp"><fgColor rgb="FFC85A3C"/><bgColor rgb="FFFFFFFF"/></patternFill></fill></dxf>',
      ),
    ).toEqual({
      fill: { pattern: 'diagonal', color: '#c85a3c', on: '#ffffff' },
    });
    const stops = '<stop position="0"><color rgb="FFFFFFFF"/></stop><stop position="1"><color rgb="FF2F7F86"/></stop>';
    expect(lookOf(`<dxf><fill><gradientFill degree="90">${stops}</gradientFill></fill></dxf>`)).toEqual({
      fill: { from: '#ffffff', to: '#2f7f86', angle: 90 },
    });
  });

  test('letters keep their size: a look moves nothing', () => {
    expect(
      lookOf('<dxf><font><sz val="20"/><family val="1"/><i/></font><numFmt numFmtId="164" formatCode="0.00"/></dxf>'),
    ).toEqual({
      italic: true,
      number: '0.00',
    });
  });
});
