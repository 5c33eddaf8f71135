import { expect, test } from 'vitest';
import { ChangeQueue } from './change-queue';

const patience = () => new Promise((resolve) => setTimeout(resolve, 5));

test('what waits is done together, in its order, up to where it may be; sheets do not wait for one another', async () => {
  const groups: string[] = [];
  const queue = new ChangeQueue<string, string>(
    async (sheet, works) => {
      groups.push(`${sheet}: ${works.join()}`);
      await patience();
      return works.map((work) => (work === 'bad' ? { error: work } : { value: `${work} done` }));
    },
    (works) => (works[0] === 'alone' ? 1 : 3),
  );
  const of = ['a', 'b', 'bad', 'c', 'alone', 'd', 'e'].map((work) => queue.add('one', work));
  const other = queue.add('two', 'x');
  expect([queue.waiting('one'), queue.waiting('two'), queue.inAll]).toEqual([6, 0, 6]);
  await patience();
  expect(queue.waitedMs('one')).toBeGreaterThan(1);
  expect(queue.waitedMs('two')).toBe(0);
  const results = await Promise.all(of.map((each) => each.catch((error: unknown) => `${String(error)} refused`)));
  expect(results).toEqual(['a done', 'b done', 'bad refused', 'c done', 'alone done', 'd done', 'e done']);
  expect(await other).toBe('x done');
  expect(groups).toEqual(['one: a', 'two: x', 'one: b,bad,c', 'one: alone', 'one: d,e']);
  expect([queue.waiting('one'), queue.waitedMs('one'), queue.inAll]).toEqual([0, 0, 0]);
});

test('where doing it fails, all of the group fail, and what comes later is done', async () => {
  let isDown = true;
  const queue = new ChangeQueue<string, string>(
    async (_, works) => {
      await patience();
      if (isDown) throw new Error('down');
      return works.map((value) => ({ value }));
    },
    (works) => works.length,
  );
  await expect(queue.add('one', 'a')).rejects.toThrow('down');
  isDown = false;
  expect(await queue.add('one', 'b')).toBe('b');
});
