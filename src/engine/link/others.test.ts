import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { makeSheet } from '../../../test/support/arbitrary-sheet';
import { PRESENCE_BEAT_MS, type Present } from '../../protocol/presence';
import { Others } from './others';

const sent: { readonly key: string; readonly place: unknown }[] = [];
let others: Others;

beforeEach(() => {
  vi.useFakeTimers();
  sent.length = 0;
  vi.stubGlobal('fetch', (_: string, { body }: { body: string }) => {
    sent.push(JSON.parse(body) as (typeof sent)[number]);
    return Promise.reject(new TypeError('fetch failed'));
  });
  others = new Others('sheet');
});
afterEach(() => {
  others.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const present = (key: string, place: Present['place'] = null): Present =>
  ({ key, name: key, role: 'editor', place }) as Present;
const at = (column: number, position: number) => ({ column, position });

test('that one is there is said at once and at every beat, also while the server is away, and not after the end', () => {
  expect(sent).toEqual([{ key: others.key, place: null }]);
  vi.advanceTimersByTime(3 * PRESENCE_BEAT_MS);
  expect(sent).toHaveLength(4);
  others.close();
  vi.advanceTimersByTime(3 * PRESENCE_BEAT_MS);
  expect(sent).toHaveLength(4);
});

test('a moving selection is sent once, where it comes to rest, by its records and fields', () => {
  const sheet = makeSheet();
  for (let position = 1; position <= 4; position++) others.select(sheet, { anchor: at(0, 1), focus: at(2, position) });
  vi.advanceTimersByTime(1000);
  expect(sent.slice(1)).toEqual([
    { key: others.key, place: { from: { row: 'r0', field: 'f1' }, to: { row: 'r3', field: 'f3' } } },
  ]);
});

test('the place of others is where their cells stand now; without a place, or with deleted cells, they have none', () => {
  const sheet = makeSheet();
  const place = { from: { row: 'r3', field: 'f3' }, to: { row: 'r1', field: 'f2' } };
  others.hear([present(others.key), present('Odo', place), present('Ilse')]);
  const areas = () => others.tell(sheet).map(({ name, area }) => [name, area]);
  expect(areas()).toEqual([
    ['Odo', { left: 1, right: 2, top: 2, bottom: 4 }],
    ['Ilse', null],
  ]);
  sheet.apply({ kind: 'remove-rows', rows: ['r0'] });
  expect(areas()[0]).toEqual(['Odo', { left: 1, right: 2, top: 1, bottom: 3 }]);
  sheet.apply({ kind: 'remove-rows', rows: ['r1'] });
  expect(areas()[0]).toEqual(['Odo', null]);
});

test('who has fallen off the list says so again, but not at every telling', () => {
  vi.advanceTimersByTime(3000);
  others.hear([present('Odo')]);
  others.hear([present('Odo')]);
  expect(sent).toHaveLength(2);
  vi.advanceTimersByTime(3000);
  others.hear([present('Odo'), present(others.key)]);
  expect(sent).toHaveLength(2);
});
