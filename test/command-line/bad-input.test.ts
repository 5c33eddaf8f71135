import { describe, expect, test } from 'vitest';
import { auxesis, data, file, rule, rules } from './run-command';

describe('bad input ends with 2, one plain line, and nothing on standard output', () => {
  const bad = (name: string, change: object) => ({
    name,
    args: ['evaluate', data, '-'],
    input: rules({ ...rule, ...change }),
  });
  test.each([
    { ...bad('an unknown kind', { when: { kind: 'compere' } }), says: 'rules[0].when.kind must be one of' },
    { ...bad('an unknown key', { colour: 1 }), says: 'rules[0].colour is not allowed' },
    {
      ...bad('a word where a number belongs', { when: { kind: 'average', is: 'above', deviations: '1' } }),
      says: 'rules[0].when.deviations must be a number',
    },
    { ...bad('a bad colour', { look: { fill: 'yellow' } }), says: 'must be a colour such as' },
    { ...bad('a look that is not there', { look: { look: 'gone' } }), says: 'the look "gone"' },
    {
      ...bad('one end of two', { when: { kind: 'compare', is: 'between', to: 3 } }),
      says: 'rules[0].when.to must be an array',
    },
    {
      ...bad('looks that do not fit the cuts', { when: { kind: 'bands', cuts: [1, 2], looks: [null] } }),
      says: 'looks must have 3 entries',
    },
    { name: 'equal ids', args: ['evaluate', data, '-'], input: rules(rule, rule), says: 'ids must differ' },
    {
      name: 'another format',
      args: ['evaluate', data, '-'],
      input: '{"format":"x","version":1,"rules":[]}',
      says: 'format must be',
    },
    { name: 'broken JSON', args: ['evaluate', data, '-'], input: '{', says: 'standard input: not JSON' },
    {
      name: 'no such file',
      args: ['evaluate', 'gone.csv', '-'],
      input: rules(),
      says: 'gone.csv: there is no such file',
    },
    { name: 'a folder', args: ['evaluate', '.', '-'], input: rules(), says: 'this is a folder' },
    {
      name: 'a long row',
      args: ['evaluate', file('long.csv', 'a\n1,2\n'), '-'],
      input: rules(),
      says: 'long.csv, line 2',
    },
    {
      name: 'bytes that are not text',
      args: ['evaluate', data, file('bytes.json', Uint8Array.of(0x7b, 0xff, 0x7d))],
      input: '',
      says: 'not UTF-8',
    },
    { name: 'an unknown command', args: ['paint'], input: '', says: 'there is no command "paint"' },
    { name: 'an unknown option', args: ['evaluate', data, '-', '--loud'], input: '', says: "Unknown option '--loud'" },
    {
      name: 'a moment that is none',
      args: ['evaluate', data, '-', '--now', 'noon'],
      input: rules(),
      says: '--now is "noon"; expected a time',
    },
    {
      name: 'a zone that is none',
      args: ['evaluate', data, '-', '--zone', 'Wrenfold'],
      input: rules(),
      says: '--zone is "Wrenfold"',
    },
    {
      name: 'a separator that is none',
      args: ['evaluate', data, '-', '--separator', ':'],
      input: rules(),
      says: 'expected one of , ; | tab',
    },
    {
      name: 'a decimal sign that is none',
      args: ['evaluate', data, '-', '--decimal', ';'],
      input: rules(),
      says: 'expected . or ,',
    },
    {
      name: 'a day that is none',
      args: ['evaluate', data, '-', '--week', 'mon'],
      input: rules(),
      says: '--week is "mon"',
    },
    {
      name: 'JSON that is no table',
      args: ['evaluate', file('flat.json', '{"a":1}'), '-'],
      input: rules(),
      says: 'expected an array of objects',
    },
    {
      name: 'a list in a record',
      args: ['evaluate', file('deep.json', '[{"a":1},{"a":[2]}]'), '-'],
      input: rules(),
      says: 'record 2: "a" holds a list',
    },
    {
      ...bad('a pattern that is none', { when: { kind: 'text', is: 'pattern', any: ['('] } }),
      says: 'when.any[0] is not a pattern',
    },
    {
      ...bad('a formula that is none', { when: { kind: 'formula', formula: '=B2+' } }),
      says: 'expected a value at the end, character 5',
    },
    {
      name: 'a formula with a gap',
      args: ['calculate', '=SUM(1;2'],
      input: '',
      says: 'expected `)` at the end, character 9',
    },
    {
      name: 'no such rule to fail by',
      args: ['evaluate', data, '-', '--fail-if', 'x'],
      input: rules(rule),
      says: 'expected the id of a rule',
    },
    { name: 'too little', args: ['evaluate', data], input: '', says: 'there are no rules in it; give a rule file' },
    {
      name: 'a cell beyond the sheet',
      args: ['explain', data, '-', 'Z99'],
      input: rules(),
      says: 'there is no cell Z99',
    },
  ])('$name', ({ args, input, says }) => {
    const { status, stdout, stderr } = auxesis(args, input);
    expect(stderr).toContain(says);
    expect({ status, stdout, lines: stderr.trimEnd().split('\n').length }).toEqual({ status: 2, stdout: '', lines: 1 });
  });
});

test('a formula that is too much work is an error, at once', () => {
  const { status, stdout, stderr } = auxesis(['calculate', '=SUMPRODUCT([.A1:.A9999000]*[.A1:.Z1])']);
  expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
  expect(JSON.parse(stdout)).toMatchObject({
    type: 'error',
    value: '#LIMIT!',
    message: expect.stringContaining('too much work') as string,
  });
});
