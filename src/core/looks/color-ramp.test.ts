import { expect, test } from 'vitest';
import { ColorRamp } from './color-ramp';
import { contrastRatio } from './contrast';
import { groundOf, readableText } from './readable-text';

// Half way from black to white: lightness 0.5 of OKLab is linear light 0.5³, of CIELAB L* 50 is Y = ((50 + 16) / 116)³;
// as sRGB (IEC 61966-2-1) these are 99 and 119 of 255.
test.each([
  ['oklab', '#636363'],
  ['lab', '#777777'],
  ['rgb', '#808080'],
] as const)('half way from black to white in %s is %s', (space, grey) =>
  expect(new ColorRamp(['#000000', '#ffffff'], space).at(5, [0, 10])).toBe(grey),
);

test('beyond the ends there is the end colour, and where stops meet the later one', () => {
  const ramp = new ColorRamp(['#ff0000', '#00ff00', '#0000ff'], 'rgb');
  expect([-1, 0, 5, 10, 11].map((value) => ramp.at(value, [0, 5, 10]))).toEqual([
    '#ff0000',
    '#ff0000',
    '#00ff00',
    '#0000ff',
    '#0000ff',
  ]);
  expect([4, 5, 6].map((value) => ramp.at(value, [0, 5, 5]))).toEqual(['#33cc00', '#0000ff', '#0000ff']);
  expect(ramp.middle()).toBe('#00ff00');
  expect(new ColorRamp(['#000000', '#ffffff'], 'rgb').middle()).toBe('#808080');
});

test('colours beyond sRGB are clipped', () =>
  expect(new ColorRamp(['#00ff00', '#ff00ff'], 'lab').at(1, [0, 10])).toMatch(/^#[0-9a-f]{6}$/));

// Contrast of WCAG 2.x: 21 of black and white; #767676 is the lightest grey with 4.5 on white (as its guides say).
test('the text on a fill is the one of two that contrasts more', () => {
  expect(contrastRatio('#000000', '#ffffff')).toBe(21);
  expect(contrastRatio('#767676', '#ffffff')).toBeGreaterThan(4.5);
  expect(contrastRatio('#777777', '#ffffff')).toBeLessThan(4.5);
  for (const fill of ['#ffffff', '#003366', '#e69f00', '#777777', '#66c2a5']) {
    const other = readableText(fill) === '#111111' ? '#ffffff' : '#111111';
    expect(contrastRatio(readableText(fill), fill)).toBeGreaterThanOrEqual(contrastRatio(other, fill));
  }
});

test('fills of other sorts have one colour that stands for them', () => {
  expect(groundOf({ color: '#000000', opacity: 0.5 })).toBe('#808080');
  expect(groundOf({ from: '#000000', to: '#ffffff' })).toBe('#808080');
  expect(groundOf({ pattern: 'dots', color: '#123456' })).toBe('#ffffff');
});
