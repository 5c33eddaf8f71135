// What is selected, and where typed text lands, while others move rows and fields.
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Request } from '../../protocol/engine-messages';
import type { ActiveCell } from '../../protocol/sheet-view';
import type { FakeServer } from '../../../test/support/fake-server';
import { OpenEngine } from '../../../test/support/open-engine';

let opened: OpenEngine;
let server: FakeServer;
const ask = (request: Request) => opened.ask(request);
const at = (column: number, position: number) => ({ anchor: { column, position }, focus: { column, position } });

async function cellAt(column: number, position: number): Promise<ActiveCell | null> {
  await ask({ kind: 'select', selection: at(column, position) });
  return (await opened.last('cell-resolved')).cell;
}

beforeEach(async () => {
  opened = await OpenEngine.make();
  ({ server } = opened);
});
afterEach(() => vi.unstubAllGlobals());

const insertAtTop = () =>
  server.elsewhere({ kind: 'insert-rows', rows: [{ id: 'new', key: 'Zz', role: 'record', cells: {} }] });

test('the selection stays on its cells', async () => {
  const selection = {
    anchor: { column: 1, position: 3 },
    focus: { column: 2, position: 5 },
    also: [{ left: 0, top: 8, right: 0, bottom: 9 }],
  };
  await ask({ kind: 'select', selection });
  insertAtTop();
  expect(await opened.last('selection-moved')).toEqual({
    kind: 'selection-moved',
    from: selection,
    to: {
      anchor: { column: 1, position: 4 },
      focus: { column: 2, position: 6 },
      also: [{ left: 0, top: 9, right: 0, bottom: 10 }],
    },
  });
  server.elsewhere({ kind: 'remove-fields', fields: ['f1'] });
  expect((await opened.last('selection-moved')).to).toMatchObject({
    anchor: { column: 0, position: 4 },
    focus: { column: 1, position: 6 },
  });
});

test('one’s own moves say what is selected after them', async () => {
  await cellAt(0, 3);
  await ask({ kind: 'edit', edit: { do: 'insert-rows', at: 1, count: 1 } });
  expect(await opened.last('selection-moved')).toBeUndefined();
  expect(await cellAt(0, 4)).toMatchObject({ input: 'x' });
});

test('an entry lands in the record that it was typed into, or is reported where that record is gone', async () => {
  const { row, field } = (await cellAt(0, 2)) as ActiveCell;
  insertAtTop();
  await ask({ kind: 'enter', cell: { row, field }, input: '44' });
  expect([await opened.textAt(0, 2), await opened.textAt(0, 3)]).toEqual(['5', '44']);
  server.elsewhere({ kind: 'remove-rows', rows: [row] });
  await ask({ kind: 'enter', cell: { row, field }, input: '45' });
  expect((await opened.last('change-refused')).message).toContain('What you typed was: 45');
  expect(await opened.textAt(0, 3)).toBe('x');
});

test('a cell that was chosen in a window of before is the one that was seen there', async () => {
  const { number: seen } = await opened.last('window-resolved');
  insertAtTop();
  // The page hears of the move only now; a key goes on from the cell.
  await ask({ kind: 'select', selection: at(0, 2), seen });
  expect(await opened.last('selection-moved')).toMatchObject({ from: at(0, 2), to: at(0, 3) });
  await ask({ kind: 'select', selection: at(1, 2), seen });
  expect(await opened.last('selection-moved')).toMatchObject({ from: at(1, 2), to: at(1, 3) });
  // Typed over the cell before the page knows its ids.
  await ask({ kind: 'enter', cell: { column: 0, position: 2 }, input: '44', seen });
  expect([await opened.textAt(0, 2), await opened.textAt(0, 3)]).toEqual(['5', '44']);
});

test('a cell that is chosen in the last window is the one that stands there', async () => {
  insertAtTop();
  const { number: seen } = await opened.last('window-resolved');
  await ask({ kind: 'select', selection: at(0, 2), seen });
  expect(await opened.last('selection-moved')).toBeUndefined();
  expect((await opened.last('cell-resolved')).cell).toMatchObject({ input: '5' });
});
