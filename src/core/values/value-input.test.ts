import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ERROR_WORDS, type CellValue } from './cell-value';
import { readInput } from './read-input';
import { valueInput } from './value-input';

const dates = fc.constantFrom('dmy' as const, 'mdy' as const, undefined);

test('any value, put as something to type, is read back as itself', () => {
  const value: fc.Arbitrary<CellValue> = fc.oneof(
    fc.constant<CellValue>({ kind: 'blank' }),
    fc.integer({ min: -1e9, max: 1e9 }).map((number): CellValue => ({ kind: 'number', number: number / 100 })),
    fc.boolean().map((logical): CellValue => ({ kind: 'logical', logical })),
    fc.constantFrom(...ERROR_WORDS).map((error): CellValue => ({ kind: 'error', error })),
    fc.integer({ min: 1, max: 80_000 }).map((serial): CellValue => ({ kind: 'date', serial })),
    // Text that looks like something else: numbers, dates, formulas, what a quote means.
    fc
      // White space alone is a blank, whatever is put before it.
      .oneof(
        fc.string({ minLength: 1 }).filter((text) => text.trim() !== ''),
        fc.constantFrom('12', '1/2/2026', '=A1', "'quoted", 'TRUE', '#N/A', '70%', ' 5', '2026-03-08', '+', "'"),
      )
      .map((text): CellValue => ({ kind: 'text', text })),
  );
  fc.assert(
    fc.property(value, dates, (given, order) => {
      const options = order ? { dates: order } : {};
      const read = readInput(valueInput(given, options), options);
      expect(read.isFormula).not.toBe(true);
      expect(read.value).toEqual(given);
    }),
    { numRuns: 5000 },
  );
});

test('text that needs no quote gets none', () => {
  expect(valueInput({ kind: 'text', text: 'Wrenfold weir' })).toBe('Wrenfold weir');
  expect(valueInput({ kind: 'text', text: '007' })).toBe("'007");
});
