import { expect, test } from 'vitest';
import { readArchiveLine } from './archive-schema';

const row = (cells: string) => `{"row":{"id":"r","key":"a0","role":"record","cells":${cells}}}`;

test.each([
  ['a NUL', '{"f":"a\\u0000b"}'],
  ['half a pair of code units', '{"f":"\\ud83d"}'],
  ['a NUL in a name', '{"f\\u0000":"a"}'],
])('%s is told in words, and where', (_, cells) => {
  expect(() => readArchiveLine(row(cells), 7)).toThrow(/which cannot be kept/);
});

test('text that only looks like an escape is text', () => {
  expect(readArchiveLine(row(JSON.stringify({ f: '\\u0000 and \\ud83d' })), 7).row!.cells).toEqual({
    f: '\\u0000 and \\ud83d',
  });
});

test.each(['__proto__', 'constructor', 'valueOf', 'toString', 'hasOwnProperty'])(
  'a field cannot be called %s',
  (id) => {
    expect(() => readArchiveLine(row(`{${JSON.stringify(id)}:"1"}`), 7)).toThrow(/no id/);
  },
);
