import { describe, expect, test } from 'vitest';
import { changeSchema } from './change-schema';

const check = (operation: object) => changeSchema.validate({ id: 'c', operations: [operation] }, { convert: false }).error?.message;
const rule = { id: 'r', name: 'R', on: true, settles: false, reads: { fields: ['f'] }, when: { kind: 'compare', is: '<', to: 5 }, paints: 'cell' };

test.each([
  { kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: '' }] },
  { kind: 'insert-rows', rows: [{ id: 'r', key: 'a0', role: 'record', cells: { f: '1' } }] },
  { kind: 'remove-rows', rows: ['r'] },
  { kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { look: 'alarm' } } }] },
  { kind: 'remove-rules', rules: ['r'] },
])('takes $kind', (operation) => expect(check(operation)).toBeUndefined());

describe('refuses, and says where', () => {
  test.each([
    [{ kind: 'drop-sheet' }, 'operations[0].kind'],
    [{ kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: 5 }] }, 'cells[0].input'],
    [{ kind: 'set-cells', cells: [] }, 'cells'],
    [{ kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: 'x'.repeat(1_000_001) }] }, 'at most 1,000,000 characters'],
    [{ kind: 'remove-rows', rows: ['a\0'] }, 'rows[0]'],
    [{ kind: 'insert-rows', rows: [1, 2].map(() => ({ id: 'r', key: 'a0', role: 'record', cells: {} })) }, 'duplicate'],
    [{ kind: 'insert-rows', rows: [{ id: 'r', key: 'not a key', role: 'record', cells: {} }] }, 'rows[0].key'],
    [{ kind: 'insert-rows', rows: [{ id: 'r', key: 'a0', role: 'king', cells: {} }] }, 'rows[0].role'],
    [{ kind: 'put-rules', rules: [{ id: 'other', key: 'a0', rule }] }, 'must be the same as its id'],
    [{ kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { look: 'gone' } } }] }, 'a look that does not exist: gone'],
    [{ kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { fill: 'red' } } }] }, 'look.fill'],
  ])('%j', (operation, words) => expect(check(operation)).toContain(words));
});
