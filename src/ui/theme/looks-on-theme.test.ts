import { expect, test } from 'vitest';
import { TOKENS } from './tokens';
import { contrastRatio } from '../../core/looks/contrast';
import { FIRST_FAMILY } from '../../core/looks/first-family';

test('contrast is that of WCAG 2.x', () => {
  // Black on white is 21:1 by definition; #777777 and #767676 on white are the well-known pair on either side of 4.5:1
  // (from memory).
  expect(contrastRatio('#000000', '#ffffff')).toBeCloseTo(21, 10);
  expect(contrastRatio('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
  expect(contrastRatio('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  expect(contrastRatio('#ffffff', '#ffffff')).toBe(1);
});

const cases = FIRST_FAMILY.flatMap((saved) =>
  (['light', 'dark'] as const).map((theme) => ({ name: saved.name, theme, look: saved[theme] })),
);

test.each(cases)('$name can be read in $theme', ({ theme, look }) => {
  const fill = typeof look.fill === 'string' ? look.fill : TOKENS[theme].sheet;
  expect(contrastRatio(look.text ?? TOKENS[theme].ink, fill)).toBeGreaterThanOrEqual(4.5);
});
