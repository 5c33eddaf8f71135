import fc from 'fast-check';
import { expect, test } from 'vitest';
import { TAG } from '../../values/cell-value';
import { Column } from './column';

function columnOf(inputs: readonly string[], options = {}): Column {
  const column = new Column(options);
  column.fit(inputs.length);
  inputs.forEach((input, slot) => column.set(slot, input));
  return column;
}

test('a number, a date and everything else, side by side in plain arrays', () => {
  const column = columnOf(['5', '2026-03-08', 'x', '', 'TRUE', '#N/A', '70%']);
  expect(Array.from(column.tags.slice(0, 7))).toEqual([
    TAG.number,
    TAG.date,
    TAG.text,
    TAG.blank,
    TAG.logical,
    TAG.error,
    TAG.number,
  ]);
  // 46089 is the serial date of 2026-03-08: 46,023 is 2026-01-01 (ISO/IEC 26300 counts from 1899-12-30), and 66 days
  // later.
  expect(Array.from(column.numbers.slice(0, 7))).toEqual([5, 46089, NaN, NaN, NaN, NaN, 0.7]);
  expect(column.hasDates).toBe(true);
  expect(columnOf(['1', '2']).hasDates).toBe(false);
});

test('equal inputs share an entry, read once', () => {
  const column = columnOf(['x', '5', 'x', '5', 'y']);
  expect(column.codes[0]).toBe(column.codes[2]);
  expect(column.codes[1]).toBe(column.codes[3]);
  expect(column.contents.count).toBe(new Column().contents.count + 3);
});

test('the same input is text in a header and a number in a record', () => {
  const column = columnOf(['', '']);
  column.set(0, '2026', true);
  column.set(1, '2026');
  expect([column.valueAt(0).kind, column.valueAt(1).kind]).toEqual(['text', 'number']);
});

test.each([
  [' 5.10 ', '5.10'],
  ["'0042", '0042'],
  ['2026-3-8', '2026-3-8'],
  ['true', 'TRUE'],
  ['#n/a', '#N/A'],
  ['  ', ''],
])('%j is shown as %j', (input, shown) => expect(columnOf([input]).entryAt(0).shown).toBe(shown));

test('a formula keeps its input beside its result, and typing over it ends it', () => {
  const column = columnOf(['=1+1', '=""', '7']);
  expect([column.inputAt(0), column.valueAt(0).kind]).toEqual(['=1+1', 'blank']);
  column.setResult(0, { kind: 'number', number: 2 });
  column.setResult(1, { kind: 'text', text: '' });
  expect([column.inputAt(0), column.entryAt(0).shown, column.numbers[0], column.tags[0]]).toEqual([
    '=1+1',
    '2',
    2,
    TAG.number,
  ]);
  expect([column.valueAt(1).kind, column.hasEmptyText(1), column.hasEmptyText(2)]).toEqual(['blank', true, false]);
  expect(column.setResult(0, { kind: 'number', number: 2 })).toBe(false);
  column.set(0, 'x');
  expect([column.inputAt(0), column.formulas.has(0), column.valueAt(0)]).toEqual([
    'x',
    false,
    { kind: 'text', text: 'x' },
  ]);
});

test('folded forms are those of what is shown', () => expect(columnOf(["'Straße  1"]).foldedAt(0)).toBe('strasse 1'));

test('dates follow the order of the sheet', () => {
  expect(columnOf(['8/3/2026'], { dates: 'dmy' }).numbers[0]).toBe(46089);
  expect(columnOf(['3/8/2026'], { dates: 'mdy' }).numbers[0]).toBe(46089);
});

test('slots grow with what they hold', () => {
  const column = columnOf(['first']);
  column.fit(10_000);
  column.set(9999, '7');
  expect([column.entryAt(0).shown, column.numbers[9999], column.valueAt(5000).kind]).toEqual(['first', 7, 'blank']);
});

test('columns without a number hold none of what others are given', () => {
  const [texts, numbers, grown] = [columnOf(['a', 'b']), columnOf(['a', 'b']), columnOf(['a'])];
  expect(texts.numbers.buffer).toBe(numbers.numbers.buffer);
  numbers.set(1, '7');
  numbers.setResult(0, { kind: 'number', number: 8 });
  grown.fit(100_000);
  grown.set(99_999, '2026-03-08');
  expect(Array.from(numbers.numbers.slice(0, 2))).toEqual([8, 7]);
  expect([grown.numbers[0], grown.numbers[99_999]]).toEqual([NaN, 46_089]);
  for (const column of [texts, columnOf(['c'])]) expect(column.numbers.every(Number.isNaN)).toBe(true);
});

// Against a column of few contents, which keeps what was read of each (and has tests of its own above).
test('among many contents a number is kept alone, and is the same to everybody', () => {
  const input = fc.oneof(
    fc.double({ noNaN: true }).map(String),
    fc.integer().map(String),
    fc.constantFrom('5', '5.0', '007', '12.50', '1e3', '1e21', '-0', '0', '5 %', ' 5', 'x', '', '2026-03-08', '#N/A'),
  );
  fc.assert(
    fc.property(fc.array(input, { maxLength: 30 }), fc.array(input, { maxLength: 30 }), (inputs, later) => {
      const [few, many] = [new Column(), new Column()];
      for (let other = 0; other < 1200; other++) many.contents.codeFor(`other ${other}`, false);
      for (const column of [few, many]) {
        column.fit(30);
        for (const list of [inputs, later]) list.forEach((each, slot) => column.set(slot, each));
      }
      const told = (column: Column) =>
        Array.from({ length: 30 }, (_, slot) => [
          column.inputAt(slot),
          column.entryAt(slot),
          column.valueAt(slot),
          column.foldedAt(slot),
          column.numberAt(slot),
          column.tags[slot],
        ]);
      expect(told(many)).toEqual(told(few));
      expect(many.contents.has('0.1')).toBe(false);
    }),
    { numRuns: 200 },
  );
});
