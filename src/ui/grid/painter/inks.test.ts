import { expect, test } from 'vitest';
import { contrastRatio } from '../../../core/looks/contrast';
import { FIRST_FAMILY } from '../../../core/looks/first-family';
import { keysOf } from '../../../core/values/typed-keys';
import { BAR_COLORS } from '../../../core/rules/kinds/bar';
import { PALETTES } from '../../../core/looks/palettes';
import { groundOf } from '../../../core/looks/readable-text';
import { TOKENS } from '../../theme/tokens';
import { barColor, inkFor } from './inks';

// 4.5 to 1: WCAG 2.2, success criterion 1.4.3.
const READABLE = 4.5;
const SCHEMES = keysOf(TOKENS);

test.each(SCHEMES)('every look that a sheet begins with is read on a %s sheet', (scheme) => {
  const tokens = TOKENS[scheme];
  for (const { name, [scheme]: look } of FIRST_FAMILY) {
    const ground = look.fill === undefined ? tokens.sheet : groundOf(look.fill, tokens.sheet);
    const ink = inkFor({ fill: look.fill, ground: undefined, text: look.text }, tokens);
    expect(contrastRatio(ink, ground), name).toBeGreaterThanOrEqual(READABLE);
  }
  for (const fill of Object.values(PALETTES).flat())
    expect(contrastRatio(inkFor({ fill, ground: undefined, text: undefined }, tokens), fill), fill).toBeGreaterThan(
      4.5,
    );
});

test('a text colour that stands on a dark sheet is made lighter; a pair that was chosen together stays', () => {
  const dark = TOKENS.dark;
  const alone = (text: string) => inkFor({ fill: undefined, ground: undefined, text }, dark);
  for (const text of ['#77200d', '#000080', '#0f4f3c', '#000000'])
    expect(contrastRatio(alone(text), dark.sheet), text).toBeGreaterThanOrEqual(READABLE);
  expect(alone('#ffd9cd')).toBe('#ffd9cd');
  expect(inkFor({ fill: '#ffd700', ground: undefined, text: '#ff0000' }, dark)).toBe('#ff0000');
  const seen = { color: '#ffd700', opacity: 0.2 };
  expect(
    contrastRatio(inkFor({ fill: seen, ground: undefined, text: undefined }, dark), groundOf(seen, dark.sheet)),
  ).toBeGreaterThan(READABLE);
});

test.each(SCHEMES)(
  'numbers are read over bars of any colour on a %s sheet, also those on a dark or light fill',
  (scheme) => {
    const tokens = TOKENS[scheme];
    for (const color of [...Object.values(BAR_COLORS), '#3d7a5a', '#000080', '#ffd700', '#ffffff', '#000000'])
      for (const ink of [tokens.ink, '#ffffff', '#111111'])
        expect(contrastRatio(barColor(color, ink, tokens), ink), `${ink} on ${color}`).toBeGreaterThanOrEqual(READABLE);
  },
);
