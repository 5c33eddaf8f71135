import fc from 'fast-check';
import { expect, test } from 'vitest';
import { trimSpace } from './trim-space';

test('white space is what Unicode says it is', () => {
  const signs = fc.integer({ min: 0, max: 0x3100 }).map((unit) => String.fromCharCode(unit));
  const space = fc.constantFrom(
    ...'\t\n\v\f\r \u0085\u00a0\u1680\u2000\u200a\u2028\u2029\u202f\u205f\u3000\u200b\ufeff',
  );
  fc.assert(
    fc.property(fc.array(fc.oneof(space, signs)), (parts) => {
      const text = parts.join('');
      // The engine's own table of the property, by expressions that are fine for short texts.
      expect(trimSpace(text)).toBe(text.replace(/^\p{White_Space}+/u, '').replace(/\p{White_Space}+$/u, ''));
    }),
  );
});
