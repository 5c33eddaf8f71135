import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyOperation } from '../../test/support/arbitrary-sheet';
import { newField } from '../core/sheet/field';
import { changeSchema } from './change-schema';

const check = (operation: object) =>
  changeSchema.validate({ id: 'c', operations: [operation] }, { convert: false }).error?.message;
const rule = {
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
};

test.each([
  { kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: '' }] },
  { kind: 'insert-rows', rows: [{ id: 'r', key: 'a0', role: 'record', cells: { f: '1' } }] },
  { kind: 'remove-rows', rows: ['r'] },
  { kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { look: 'alarm' } } }] },
  { kind: 'remove-rules', rules: ['r'] },
  {
    kind: 'put-parts',
    parts: [{ id: 'look-saved-a', kind: 'look', name: 'Heavy', look: { bold: true }, dark: { italic: true } }],
  },
  { kind: 'put-parts', parts: [{ id: 'never-seen_a_b', kind: 'dismissal', reason: '' }] },
  {
    kind: 'put-parts',
    parts: [{ id: 'snapshot after the flood', kind: 'snapshot', name: 'After the Flood', sequence: 12 }],
  },
  {
    kind: 'put-rules',
    rules: [{ id: 'r', key: 'a0', rule: { ...rule, note: 'Call the warden', look: { look: 'saved-a' } } }],
  },
])('takes $kind', (operation) => expect(check(operation)).toBeUndefined());

test('takes every operation that the engine may make', () => {
  fc.assert(
    fc.property(anyOperation, (operation) => {
      expect(check(operation)).toBeUndefined();
    }),
  );
});

describe('refuses, and says where', () => {
  test.each([
    [{ kind: 'drop-sheet' }, 'operations[0].kind'],
    [{ kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: 5 }] }, 'cells[0].input'],
    [{ kind: 'set-cells', cells: [] }, 'cells'],
    [
      { kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: 'x'.repeat(100_001) }] },
      'at most 100,000 characters',
    ],
    [{ kind: 'remove-rows', rows: ['a\0'] }, 'rows[0]'],
    [{ kind: 'insert-rows', rows: [1, 2].map(() => ({ id: 'r', key: 'a0', role: 'record', cells: {} })) }, 'duplicate'],
    [{ kind: 'insert-rows', rows: [{ id: 'r', key: 'not a key', role: 'record', cells: {} }] }, 'rows[0].key'],
    [{ kind: 'insert-rows', rows: [{ id: 'r', key: 'a0', role: 'king', cells: {} }] }, 'rows[0].role'],
    [{ kind: 'change-rows', rows: [{ id: 'r', heightPx: 5 }] }, 'rows[0].heightPx'],
    [{ kind: 'set-styles', cells: [{ row: 'r', field: 'f', style: { fill: 'red' } }] }, 'style.fill'],
    [{ kind: 'put-fields', fields: [newField('f', 'a0', { widthPx: 3 })] }, 'fields[0].widthPx'],
    [
      { kind: 'put-parts', parts: [{ id: 'b2', kind: 'name', name: 'B2', refersTo: '=A1' }] },
      'must not look like the address of a cell',
    ],
    [
      { kind: 'put-parts', parts: [{ id: 'x', kind: 'name', name: 'Limit', refersTo: '=A1' }] },
      'its name in lower case',
    ],
    [
      { kind: 'put-parts', parts: [{ id: 'my limit', kind: 'name', name: 'my limit', refersTo: '=A1' }] },
      'only letters, digits',
    ],
    [{ kind: 'put-parts', parts: [{ id: 'x', kind: 'sticker' }] }, 'parts[0].kind'],
    [
      { kind: 'put-parts', parts: [{ id: 'look-alarm', kind: 'look', name: 'A', look: { look: 'alarm' } }] },
      'not refer to another look',
    ],
    [
      {
        kind: 'put-parts',
        parts: [{ id: 'look-saved-a', kind: 'look', name: 'A', look: {}, dark: { look: 'saved-a' } }],
      },
      'not refer to another look',
    ],
    [{ kind: 'put-parts', parts: [{ id: 'look-gone', kind: 'look', name: 'A', look: {} }] }, 'the id of a look'],
    [{ kind: 'put-parts', parts: [{ id: 'alarm', kind: 'look', name: 'A', look: {} }] }, 'the id of a look'],
    [{ kind: 'put-parts', parts: [{ id: 'look-alarm', kind: 'look', name: '', look: {} }] }, 'parts[0].name'],
    [{ kind: 'put-parts', parts: [{ id: 'gap_a', kind: 'dismissal' }] }, 'parts[0].reason'],
    [
      { kind: 'put-parts', parts: [{ id: 'flood', kind: 'snapshot', name: 'Flood', sequence: 1 }] },
      'its name in lower case',
    ],
    [
      { kind: 'put-parts', parts: [{ id: 'snapshot flood', kind: 'snapshot', name: 'Flood', sequence: -1 }] },
      'parts[0].sequence',
    ],
    [{ kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, note: 'x'.repeat(501) } }] }, 'rule.note'],
    [{ kind: 'put-rules', rules: [{ id: 'other', key: 'a0', rule }] }, 'must be the same as its id'],
    [
      { kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { look: 'gone' } } }] },
      'a look that does not exist: gone',
    ],
    [{ kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule: { ...rule, look: { fill: 'red' } } }] }, 'look.fill'],
  ])('%j', (operation, words) => expect(check(operation)).toContain(words));
});
