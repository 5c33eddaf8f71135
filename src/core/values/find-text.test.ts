import fc from 'fast-check';
import { expect, test } from 'vitest';
import { findText, findUnits } from './find-text';

const text = (most: number) =>
  fc.array(fc.constantFrom('a', 'b'), { maxLength: most }).map((letters) => letters.join(''));
const listed = (value: string) => ({ length: value.length, at: (place: number) => value[place] });

test('a text is found where the engine finds it', () => {
  fc.assert(
    fc.property(text(60), text(6), fc.nat(70), (within, wanted, from) => {
      expect(findUnits(listed(within), listed(wanted), from)).toBe(
        from > within.length ? -1 : within.indexOf(wanted, from),
      );
    }),
    { numRuns: 2000 },
  );
  expect(findText(`${'ab'.repeat(500)}c`, `${'ab'.repeat(100)}c`)).toBe(800);
});

// Looking at each place again would take 2.5e11 steps: the test would not end.
test('a text that is found almost everywhere is searched once', () => {
  expect(findText('a'.repeat(1_000_000), `${'a'.repeat(500_000)}b`)).toBe(-1);
});
