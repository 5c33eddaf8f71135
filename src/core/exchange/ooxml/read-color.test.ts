import { hsl } from 'd3-color';
import { describe, expect, test } from 'vitest';
import type { XmlElement } from '../xml/xml-element';
import { readColor, themeColors } from './read-color';

const color = (attributes: Readonly<Record<string, string>>): XmlElement => ({
  name: 'color',
  attributes,
  content: [],
});

test('outright, with or without its opacity, by number, or none', () => {
  expect(readColor(color({ rgb: 'FF336699' }), [])).toBe('#336699');
  expect(readColor(color({ rgb: '336699' }), [])).toBe('#336699');
  // ISO/IEC 29500-1, 18.8.27: 2 is red, 22 silver, 64 that of the system.
  expect(readColor(color({ indexed: '2' }), [])).toBe('#ff0000');
  expect(readColor(color({ indexed: '22' }), [])).toBe('#c0c0c0');
  expect(readColor(color({ indexed: '64' }), [])).toBeUndefined();
  expect(readColor(color({ auto: '1' }), [])).toBeUndefined();
  expect(readColor(undefined, [])).toBeUndefined();
});

describe('tints, 18.8.19', () => {
  // The lightness by the formula there: L·(1+tint) towards black, L·(1−tint)+tint towards white.
  test.each([
    ['FF336699', -0.5, 0.4 * 0.5],
    ['FF336699', -0.25, 0.4 * 0.75],
    ['FF336699', 0.4, 0.4 * 0.6 + 0.4],
    ['FF336699', 0.8, 0.4 * 0.2 + 0.8],
  ])('%s with %d', (rgb, tint, lightness) => {
    const { h, s, l } = hsl(readColor(color({ rgb, tint: String(tint) }), [])!);
    expect(l).toBeCloseTo(lightness, 2);
    expect(h).toBeCloseTo(210, -1);
    expect(s).toBeCloseTo(0.5, 1);
  });

  test('black and white at the ends', () => {
    expect(readColor(color({ rgb: 'FF808080', tint: '-1' }), [])).toBe('#000000');
    expect(readColor(color({ rgb: 'FF808080', tint: '1' }), [])).toBe('#ffffff');
  });
});

test('of the theme, light before dark', () => {
  const part = (name: string, ...content: XmlElement[]): XmlElement => ({ name, attributes: {}, content });
  const given = (name: string, type: string, attributes: Readonly<Record<string, string>>) =>
    part(`a:${name}`, { name: type, attributes, content: [] });
  const theme = themeColors(
    part(
      'a:theme',
      part(
        'a:themeElements',
        part(
          'a:clrScheme',
          given('dk1', 'a:sysClr', { val: 'windowText', lastClr: '101010' }),
          given('lt1', 'a:sysClr', { val: 'window', lastClr: 'FEFEFE' }),
          given('accent1', 'a:srgbClr', { val: '4472C4' }),
        ),
      ),
    ),
  );
  expect(readColor(color({ theme: '0' }), theme)).toBe('#fefefe');
  expect(readColor(color({ theme: '1' }), theme)).toBe('#101010');
  expect(readColor(color({ theme: '4' }), theme)).toBe('#4472c4');
  expect(readColor(color({ theme: '5' }), theme)).toBeUndefined();
});
