import { describe, expect, test } from 'vitest';
import { keyIntent } from './key-intent';
import { moveCell, selectedArea } from './selection';

const press = (key: string, held = '') =>
  keyIntent({ key, shift: held.includes('shift'), control: held.includes('control'), alt: held.includes('alt') });

// The keyboard interaction of the grid pattern in the ARIA Authoring Practices (W3C), for data grids.
describe('keys', () => {
  test.each([
    ['ArrowRight', '', { kind: 'move', columns: 1, rows: 0, extend: false }],
    ['ArrowUp', 'shift', { kind: 'move', columns: 0, rows: -1, extend: true }],
    ['ArrowDown', 'control', { kind: 'edge', columns: 0, rows: 1, extend: false }],
    ['ArrowUp', 'alt', { kind: 'move-selected', columns: 0, rows: -1 }],
    ['ArrowDown', 'alt shift', { kind: 'fill', direction: 'down' }],
    ['b', 'control', { kind: 'mark', mark: 'bold' }],
    ['F1', '', { kind: 'help' }],
    ['Home', '', { kind: 'move', columns: -Infinity, rows: 0, extend: false }],
    ['End', 'control', { kind: 'move', columns: Infinity, rows: Infinity, extend: false }],
    ['PageDown', '', { kind: 'page', direction: 1, extend: false }],
    ['Tab', 'shift', { kind: 'move', columns: -1, rows: 0, extend: false }],
    ['Enter', '', { kind: 'edit' }],
    ['F2', '', { kind: 'edit' }],
    ['Delete', '', { kind: 'clear' }],
    ['a', 'control', { kind: 'select-all' }],
    ['z', 'control', { kind: 'undo' }],
    ['Z', 'control shift', { kind: 'redo' }],
    ['é', '', { kind: 'type', text: 'é' }],
    ['=', 'shift', { kind: 'type', text: '=' }],
  ])('%s %s', (key, held, intent) => expect(press(key, held)).toEqual(intent));

  test.each([
    ['s', 'control'],
    ['F5', ''],
    ['Escape', ''],
    ['Shift', 'shift'],
    ['ArrowLeft', 'alt shift'],
  ])('%s %s is the browser’s', (key, held) => expect(press(key, held)).toBeUndefined());
});

test('moves stop at the edges', () => {
  const size = { columnCount: 4, rowCount: 10, rowHeight: () => 27, columnWidth: () => 80 };
  expect(moveCell({ column: 1, position: 5 }, { columns: -Infinity, rows: Infinity }, size)).toEqual({
    column: 0,
    position: 9,
  });
  expect(selectedArea({ anchor: { column: 3, position: 1 }, focus: { column: 0, position: 4 } })).toEqual({
    left: 0,
    right: 3,
    top: 1,
    bottom: 4,
  });
});
