import { expect, test } from 'vitest';
import type { Rule } from '../rules/shape/rule';
import type { Operation } from './change';
import { changeWords } from './change-words';

const rule = (name: string): Rule => ({
  id: name,
  name,
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when: { kind: 'state', is: 'blank' },
  paints: 'cell',
});
const put = (...names: string[]): Operation => ({
  kind: 'put-rules',
  rules: names.map((name) => ({ id: name, key: 'a0', rule: rule(name) })),
});
const cell = { row: 'r', field: 'a', input: '1' };

test.each<[string, Operation[], Operation[], string[]]>([
  ['cells', [{ kind: 'set-cells', cells: [cell, cell] }], [], ['2 cells entered']],
  ['moved rows', [{ kind: 'change-rows', rows: [{ id: 'r', key: 'b' }] }], [], ['1 row moved']],
  ['rows of another height', [{ kind: 'change-rows', rows: [{ id: 'r', heightPx: 40 }] }], [], ['1 row changed']],
  ['a rule made', [put('Low')], [{ kind: 'remove-rules', rules: ['Low'] }], ['rule “Low” made']],
  ['a rule changed', [put('Low')], [put('Low')], ['rule “Low” changed']],
  [
    'many rules',
    [put('A', 'B', 'C', 'D', 'E')],
    [],
    ['rule “A” changed', 'rule “B” changed', 'rule “C” changed', '2 other rules'],
  ],
  ['the same twice is told once', [put('A'), put('A')], [], ['rule “A” changed']],
  [
    'a version',
    [{ kind: 'put-parts', parts: [{ id: 'snapshot storm', kind: 'snapshot', name: 'Storm', sequence: 3 }] }],
    [],
    ['version “Storm” named'],
  ],
  ['a look', [{ kind: 'remove-parts', parts: ['p'] }], [], ['a name, a merge or a saved look deleted']],
])('%s', (...[, operations, inverse, words]) => expect(changeWords(operations, { inverse })).toEqual(words));

test('a change that is not given whole is described by its count, not by its values', () =>
  expect(changeWords([{ kind: 'set-cells', cells: [cell] }], { inverse: [], counts: [5000] })).toEqual([
    '5,000 cells entered',
  ]));
