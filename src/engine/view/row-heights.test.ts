import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { OpenEngine } from '../../../test/support/open-engine';
import type { FilterTest } from '../../protocol/sheet-view';

let opened: OpenEngine;
beforeEach(async () => {
  opened = await OpenEngine.make();
});
afterEach(() => vi.unstubAllGlobals());

test('a filter keeps records out of view by a rule or by what they show, and moves nothing', async () => {
  await opened.ask({ kind: 'filter', filter: { rule: 'low' } });
  expect((await opened.frame()).heights).toEqual([
    [1, 1, 0],
    [3, 5, 0],
    [7, 8, 0],
    [10, 10, 0],
  ]);
  expect((await opened.window()).rows).toEqual([2, 6, 9]);
  expect(await opened.window()).toMatchObject({ texts: expect.arrayContaining(['4.9', '70%', '-5']) as string[] });
  await opened.ask({ kind: 'filter', filter: { field: 'f1', texts: ['x', ''] } });
  expect((await opened.window()).rows).toEqual([3, 4]);
  // 5, 4.9, x, blank, 7, 70%, done, a date, -5, 6: a date is a number of days.
  const shown = async (is: FilterTest, value: string) => {
    await opened.ask({ kind: 'filter', filter: { field: 'f1', is, value } });
    return (await opened.window()).rows;
  };
  expect(await shown('contains', 'ON')).toEqual([7]);
  expect(await shown('at least', '6')).toEqual([5, 8, 10]);
  expect(await shown('at most', '50%')).toEqual([9]);
  await opened.ask({ kind: 'filter', filter: { field: 'f1', texts: ['x', ''] } });
  await opened.ask({ kind: 'edit', edit: { do: 'set-height', top: 3, bottom: 3, heightPx: 60 } });
  await opened.ask({ kind: 'filter', filter: null });
  expect((await opened.frame()).heights).toEqual([[3, 3, 60]]);
  expect((await opened.window()).rows).toHaveLength(10);
  // Nobody else hears of a filter.
  expect(opened.server.received.flatMap(({ operations }) => operations).map(({ kind }) => kind)).toEqual([
    'change-rows',
  ]);
});
