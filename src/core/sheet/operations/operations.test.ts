import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, contentsOf, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { operationSchema } from '../../../protocol/change-schema';
import type { Operation } from '../change';
import type { Visibility } from './operation-kind';
import { entriesOf, operationKind, OPERATIONS, sizeOf } from './registry';

/** A reader who sees the first and the third column, and of these only even slots. */
const view: Visibility = {
  columns: [0, 2],
  isVisible: (column, slot) => column !== 1 && slot % 2 === 0,
  inputAt: (column, slot) => (slot % 2 === 0 ? `seen ${column} ${slot}` : ''),
};

/** Every input and style that stands in operations, with the field it is for. */
const carried = (operations: readonly Operation[]) => [
  ...entriesOf(operations).map(({ field, input }) => ({ field, input })),
  ...operations.flatMap((operation) =>
    operation.kind === 'insert-rows'
      ? operation.rows.flatMap(({ cells }) => Object.entries(cells).map(([field, input]) => ({ field, input })))
      : operation.kind === 'set-styles'
        ? operation.cells.map(({ field }) => ({ field, input: '' }))
        : [],
  ),
];

test('every operation is taken by its schema, undone by its inverse, named, counted, and cut down to what a reader sees', () => {
  const seen = new Set<string>();
  fc.assert(
    fc.property(anyOperation, (operation) => {
      seen.add(operation.kind);
      const kind = operationKind(operation);
      expect(operationSchema.validate(operation).error).toBeUndefined();
      const sheet = makeSheet();
      const before = contentsOf(sheet);
      const { inverse } = sheet.apply(operation);
      const restricted = kind.restrict(operation, view, sheet);
      const [first, third] = view.columns.map((column) => sheet.fields[column]?.id);
      for (const { field, input } of carried(restricted)) {
        expect([first, third]).toContain(field);
        if (input !== '') expect(input).toMatch(/^seen /);
      }
      expect(restricted.some(({ kind: sent }) => /rules|parts|fields/.test(sent))).toBe(false);
      for (const step of inverse) sheet.apply(step);
      expect(contentsOf(sheet)).toEqual(before);
      const words = kind.words(operation, { made: new Set() });
      expect(words.every((text) => /^[^\n]{3,}$/.test(text))).toBe(true);
      expect(sizeOf([operation])).toBeGreaterThan(0);
    }),
    { numRuns: 600 },
  );
  expect([...seen].sort()).toEqual(Object.keys(OPERATIONS).sort());
});
