import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit } from 'culori';
import { ColorRamp } from '../../src/core/looks/color-ramp';
import { contrastRatio, luminance } from '../../src/core/looks/contrast';
import { groundOf, readableText } from '../../src/core/looks/readable-text';

type Triple = readonly [number, number, number];
const times = (matrix: readonly Triple[], [a, b, c]: Triple): Triple =>
  matrix.map(([x, y, z]) => x * a + y * b + z * c) as unknown as Triple;

/*
 * OKLab by the matrices of its article: Björn Ottosson, "A perceptual color space for image processing" (2020), and the
 * four pairs that the article gives to check an implementation. From memory, which the pairs confirm.
 */
const M1: readonly Triple[] = [
  [0.8189330101, 0.3618667424, -0.1288597137],
  [0.0329845436, 0.9293118715, 0.0361456387],
  [0.0482003018, 0.2643662691, 0.633851707],
];
const M2: readonly Triple[] = [
  [0.2104542553, 0.793617785, -0.0040720468],
  [1.9779984951, -2.428592205, 0.4505937099],
  [0.0259040371, 0.7827717662, -0.808675766],
];
const labOfXyz = (xyz: Triple): Triple => times(M2, times(M1, xyz).map(Math.cbrt) as unknown as Triple);
/** Linear sRGB to XYZ with the D65 white (IEC 61966-2-1). */
const RGB_TO_XYZ: readonly Triple[] = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
];
const channels = (hex: string): Triple =>
  [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255) as unknown as Triple;
const linear = (share: number): number => (share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4);
const labOf = (hex: string): Triple => labOfXyz(times(RGB_TO_XYZ, channels(hex).map(linear) as unknown as Triple));

describe('OKLab', () => {
  test.each<[Triple, Triple]>([
    [
      [0.95, 1, 1.089],
      [1, 0, 0],
    ],
    [
      [1, 0, 0],
      [0.45, 1.236, -0.019],
    ],
    [
      [0, 1, 0],
      [0.922, -0.671, 0.263],
    ],
    [
      [0, 0, 1],
      [0.153, -1.415, -0.449],
    ],
  ])('the published pair %j', (xyz, lab) =>
    labOfXyz(xyz).forEach((value, at) => expect(value).toBeCloseTo(lab[at]!, 3)),
  );

  // Colours of CSS Color 4 (W3C) as its examples give them in oklab(): green, and the primaries as the article's own
  // converter prints them. From memory.
  test.each<[string, Triple]>([
    ['#008000', [0.51975, -0.1403, 0.10768]],
    ['#ff0000', [0.62796, 0.22486, 0.12585]],
    ['#0000ff', [0.45201, -0.03246, -0.31153]],
  ])('the published colour %s', (hex, lab) =>
    labOf(hex).forEach((value, at) => expect(value).toBeCloseTo(lab[at]!, 3)),
  );

  test('a scale mixes in it: half way between two colours lies half way in OKLab', () => {
    // Greys and near greys, so that no mixture falls out of sRGB, where it would be clipped.
    const muted = fc.tuple(
      fc.integer({ min: 60, max: 190 }),
      fc.integer({ min: -25, max: 25 }),
      fc.integer({ min: -25, max: 25 }),
    );
    const hexOf = ([level, red, blue]: readonly [number, number, number]) =>
      `#${[level + red, level, level + blue].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
    fc.assert(
      fc.property(muted, muted, (one, other) => {
        const [a, b] = [hexOf(one), hexOf(other)];
        const middle = labOf(new ColorRamp([a, b], 'oklab').at(0.5, [0, 1]));
        // A step of one in a channel of 255 is up to 0.006 of lightness.
        middle.forEach((value, at) =>
          expect(Math.abs(value - (labOf(a)[at]! + labOf(b)[at]!) / 2)).toBeLessThan(0.006),
        );
      }),
    );
  });
});

// WCAG 2.2, definitions of contrast ratio and relative luminance; the pairs are those its techniques and common
// checkers tell. From memory.
describe('contrast', () => {
  test.each([
    ['#000000', '#ffffff', 21],
    ['#ffffff', '#ffffff', 1],
    ['#777777', '#ffffff', 4.48],
    ['#767676', '#ffffff', 4.54],
    ['#949494', '#ffffff', 3.03],
    ['#595959', '#ffffff', 7],
    ['#0000ff', '#ffffff', 8.59],
    ['#ff0000', '#ffffff', 4],
    ['#008000', '#ffffff', 5.14],
    ['#ffff00', '#000000', 19.56],
  ])('%s on %s is %d', (one, other, ratio) => {
    expect(contrastRatio(one, other)).toBeCloseTo(ratio, 1);
    expect(contrastRatio(other, one)).toBe(contrastRatio(one, other));
  });

  test('the luminance of the primaries is their weight', () => {
    expect([luminance('#ff0000'), luminance('#00ff00'), luminance('#0000ff')]).toEqual([0.2126, 0.7152, 0.0722]);
  });

  test('whatever the fill, black or white ink on it reads at 4.5 to 1 at least, with one the better of two', () => {
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((number) => `#${number.toString(16).padStart(6, '0')}`);
    fc.assert(
      fc.property(hex, hex, fc.double({ min: 0, max: 1, noNaN: true }), (color, to, opacity) => {
        for (const fill of [
          color,
          { color, opacity },
          { from: color, to },
          { pattern: 'dots' as const, color, on: to },
        ]) {
          const [ground, text] = [groundOf(fill), readableText(fill)];
          const other = text === '#111111' ? '#ffffff' : '#111111';
          expect(contrastRatio(text, ground)).toBeGreaterThanOrEqual(contrastRatio(other, ground));
          // The worst ground for the better of the two inks, by the formula: (L + 0.05)² = 1.05 × (ink + 0.05).
          expect(contrastRatio(text, ground)).toBeGreaterThan(4.3);
        }
      }),
    );
  });
});

/*
 * Machado, Oliveira and Fernandes, "A physiologically-based model for simulation of color vision deficiency" (2009),
 * matrices of severity 1.0 as its authors publish them. From memory. They act on linear light.
 */
describe('colour vision without one of its cones', () => {
  const MATRICES: Record<string, readonly Triple[]> = {
    protan: [
      [0.152286, 1.052583, -0.204868],
      [0.114503, 0.786281, 0.099216],
      [-0.003882, -0.048116, 1.051998],
    ],
    deutan: [
      [0.367322, 0.860646, -0.227968],
      [0.280085, 0.672501, 0.047413],
      [-0.01182, 0.04294, 0.968881],
    ],
    tritan: [
      [1.255528, -0.076749, -0.178779],
      [-0.078411, 0.930809, 0.147602],
      [0.004733, 0.691367, 0.3039],
    ],
  };
  const SEEN = { protan: filterDeficiencyProt(1), deutan: filterDeficiencyDeuter(1), tritan: filterDeficiencyTrit(1) };

  test.each(Object.entries(SEEN))('%s', (vision, see) => {
    for (const hex of ['#cc6677', '#88ccee', '#ddcc77', '#117733']) {
      const [r, g, b] = channels(hex);
      const seen = see({ mode: 'rgb', r, g, b });
      const wanted = times(MATRICES[vision]!, [r, g, b]);
      [seen.r, seen.g, seen.b].forEach((value, at) =>
        expect(value).toBeCloseTo(Math.min(1, Math.max(0, wanted[at]!)), 2),
      );
    }
  });
});
