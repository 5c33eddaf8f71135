import fc from 'fast-check';
import { expect, test } from 'vitest';
import { newField, type Field } from '../../sheet/field';
import { Sheet } from '../../sheet/sheet';
import type { CellValue } from '../../values/cell-value';
import { readInput } from '../../values/read-input';
import { serialInZone } from '../../values/dates/serial-in-zone';
import type { Operation } from '../../sheet/change';
import { CellPast } from './cell-past';

const HOUR = 3_600_000;
const FIELDS = ['a', 'b'] as const;
const input = fc.constantFrom('', '5', 'open', '70%', '2026-03-08', '-1');
const step = fc.oneof(
  fc.record({ kind: fc.constant('set' as const), row: fc.nat(4), field: fc.constantFrom(...FIELDS), input }),
  fc.record({ kind: fc.constant('insert' as const), input }),
);

function opened(fields: readonly Field[]) {
  return new Sheet(fields);
}

test('what a cell held at any moment is what a copy of the sheet, kept then, held', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 20 }), fc.nat(20), (steps, split) => {
      const fields = FIELDS.map((id) => newField(id, id));
      const sheet = opened(fields);
      sheet.apply({ kind: 'insert-rows', rows: [{ id: 'r0', key: 'a0', role: 'record', cells: { a: '1' } }] });
      const past = new CellPast(sheet);
      const copies = [copyOf(sheet)];
      const changes = steps.map((each, at) => {
        const operation: Operation =
          each.kind === 'set'
            ? { kind: 'set-cells', cells: [{ row: `r${each.row}`, field: each.field, input: each.input }] }
            : {
                kind: 'insert-rows',
                rows: [{ id: `r${sheet.rowCount}`, key: `a${at}`, role: 'record', cells: { b: each.input } }],
              };
        const { inverse } = sheet.apply(operation);
        copies.push(copyOf(sheet));
        return { sequence: at + 1, at: (at + 1) * HOUR, inverse };
      });
      // As on the page: live changes come first, earlier ones afterwards.
      for (const change of [...changes.slice(split), ...changes.slice(0, split)]) past.add(change);
      past.knowsFrom(0, true);
      const known = copies.map((_, at) =>
        sheet.order.map((slot) =>
          FIELDS.map((__, column) => past.valueBefore(column, slot, serialInZone((at + 0.5) * HOUR))),
        ),
      );
      // Of a row that was not there yet, the first content of each cell counts.
      const first = (row: string) =>
        FIELDS.map((_, column) => {
          const values = copies.flatMap((copy) => copy.get(row)?.[column] ?? []);
          return values.find(({ kind }) => kind !== 'blank') ?? values.at(-1)!;
        });
      const reference = copies.map((copy) =>
        sheet.order.map((slot) => copy.get(sheet.rowId(slot)) ?? first(sheet.rowId(slot))),
      );
      expect(known).toEqual(reference);
    }),
  );
});

const copyOf = (sheet: Sheet): Map<string, CellValue[]> =>
  new Map(sheet.order.map((slot) => [sheet.rowId(slot), sheet.columns.map((column) => column.valueAt(slot))]));

test('before the first logged change nothing is known, nor what a formula gave', () => {
  const sheet = opened([newField('a', 'a')]);
  sheet.apply({ kind: 'insert-rows', rows: [{ id: 'r', key: 'a0', role: 'record', cells: { a: '=1+1' } }] });
  const past = new CellPast(sheet);
  past.add({
    sequence: 7,
    at: 30 * HOUR,
    inverse: sheet.apply({ kind: 'set-cells', cells: [{ row: 'r', field: 'a', input: '7' }] }).inverse,
  });
  const at = (hour: number) => past.valueBefore(0, 0, serialInZone(hour * HOUR));
  expect([at(20), at(31)]).toEqual([undefined, undefined]);
  past.knowsFrom(25 * HOUR, false);
  expect([at(20), at(26), at(31)]).toEqual([undefined, undefined, readInput('7').value]);
  sheet.apply({ kind: 'set-cells', cells: [{ row: 'r', field: 'a', input: '=2+2' }] });
  expect(at(31)).toBeUndefined();
});

test('a named moment is that of its change: known once the change is in the log, at the beginning where all of them are', () => {
  const sheet = opened([newField('a', 'a')]);
  const name = (id: string, sequence: number) =>
    sheet.apply({
      kind: 'put-parts',
      parts: [{ id: `snapshot ${id.toLowerCase()}`, kind: 'snapshot', name: id, sequence }],
    });
  name('Storm', 7);
  name('First', 0);
  const past = new CellPast(sheet);
  expect([past.momentOf('storm'), past.momentOf('never')]).toEqual([NaN, undefined]);
  past.add({ sequence: 7, at: 30 * HOUR, inverse: [] });
  expect([past.momentOf('STORM '), past.momentOf('First')]).toEqual([serialInZone(30 * HOUR), NaN]);
  past.knowsFrom(25 * HOUR, true);
  expect(past.momentOf('First')).toBe(serialInZone(25 * HOUR));
});
