import { expect, test } from 'vitest';
import { makeSheet } from '../../../test/support/arbitrary-sheet';
import { GivenLooks } from './given-looks';

const PLAIN = { properties: {}, says: [], rules: [] };
const LOW = { properties: { fill: '#ffcc00' }, says: ['Low'], rules: ['low'] };
const LATE = { properties: { bold: true }, says: ['Late', 'Low'], rules: ['late', 'low'] };

function given() {
  const sheet = makeSheet(['5', '4', '9']);
  // The header and three records, in three fields.
  const codes = sheet.fields.map((_, column) => Uint32Array.of(0, column === 0 ? 1 : 0, 0, 0));
  return { sheet, looks: new GivenLooks(sheet, { looks: [PLAIN, LOW], codes }) };
}
const wordsAt = (looks: GivenLooks, column: number, slot: number) =>
  looks.resolve(column, slot).rules.map((at) => looks.names[at]);

test('a cell has the look that the server gave it, and says by which rules', () => {
  const { looks } = given();
  expect(Object.fromEntries(looks.resolve(0, 1).properties)).toEqual({ fill: '#ffcc00' });
  expect(wordsAt(looks, 0, 1)).toEqual(['Low']);
  expect(looks.isMadeBy('low', 0, 1)).toBe(true);
  expect(looks.isMadeBy('low', 1, 1)).toBe(false);
  expect(looks.resolve(0, 2).properties.size).toBe(0);
});

test('new looks go behind those that are there, and what they say is kept once', () => {
  const { sheet, looks } = given();
  looks.take({ looks: [LATE], cells: [['r1', 'f3', 2]] });
  expect(wordsAt(looks, 2, sheet.findSlot('r1')!)).toEqual(['Late', 'Low']);
  expect(looks.names).toEqual(['Low', 'Late']);
  looks.take({ looks: [], cells: [['r1', 'f3', 0]] });
  expect(looks.resolve(2, sheet.findSlot('r1')!).properties.size).toBe(0);
});

test('rows that come later get theirs, and cells that are gone are passed over', () => {
  const { sheet, looks } = given();
  const rows = Array.from({ length: 20 }, (_, at) => ({
    id: `new${at}`,
    key: `z${at}`,
    role: 'record' as const,
    cells: {},
  }));
  sheet.apply({ kind: 'insert-rows', rows });
  sheet.apply({ kind: 'remove-rows', rows: ['r2'] });
  looks.take({
    looks: [],
    cells: [
      ['new19', 'f2', 1],
      ['r2', 'f1', 1],
      ['r0', 'gone', 1],
    ],
  });
  expect(looks.isMadeBy('low', 1, sheet.findSlot('new19')!)).toBe(true);
  expect(looks.isMadeBy('low', 1, sheet.findSlot('new18')!)).toBe(false);
  expect(looks.isMadeBy('low', 0, sheet.findSlot('r0')!)).toBe(true);
});
