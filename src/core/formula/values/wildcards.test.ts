import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readWildcards } from './wildcards';

const pattern = fc
  .array(fc.constantFrom('a', 'b', '*', '?', '~*', '~?', '~~', '.', '~'), { maxLength: 7 })
  .map((parts) => parts.join(''));
const text = fc
  .array(fc.constantFrom('a', 'b', '*', '?', '~', '.', '😀'), { maxLength: 12 })
  .map((parts) => parts.join(''));

/** The same pattern as a regular expression, which goes back as often as it must. */
function expression(wildcards: string): string {
  return wildcards.replace(/~([*?~])|[\s\S]/gu, (part, kept: string | undefined) => {
    if (kept === undefined && part === '*') return '[\\s\\S]*';
    if (kept === undefined && part === '?') return '[\\s\\S]';
    return (kept ?? part).replace(/[.*?]/, '\\$&');
  });
}

test('patterns mean what regular expressions of the same meaning do', () => {
  fc.assert(
    fc.property(pattern, text, (wildcards, value) => {
      const read = readWildcards(wildcards);
      expect(read.matches(value)).toBe(new RegExp(`^${expression(wildcards)}$`, 'u').test(value));
      const first = new RegExp(expression(wildcards), 'u').exec(value);
      expect(read.find(value, 0)).toBe(first ? Array.from(value.slice(0, first.index)).length : -1);
    }),
    { numRuns: 5000 },
  );
});

// Going back to each place that a run may end at would take 1e12 steps and more: the test would not end.
test('long texts are looked through once for each part of a pattern', () => {
  const letters = 'a'.repeat(500_000);
  expect(readWildcards(`*${letters}b*a`).matches(letters)).toBe(false);
  expect(readWildcards(`${'a'.repeat(1000)}b`).find(letters, 0)).toBe(-1);
  expect(readWildcards('a?b').find(letters, 0)).toBe(-1);
});
