import { expect, test } from 'vitest';
import { boundedQueue } from './bounded-queue';

test('as many wait for their turn as there is room for; more are refused in words, and then there is room again', async () => {
  const queue = boundedQueue(2, 3, 'Wait a minute.');
  const begun: number[] = [];
  const ends: ((result: string) => void)[] = [];
  const begin = (at: number) =>
    queue(() => {
      begun.push(at);
      return new Promise<string>((resolve) => ends.push(resolve));
    });
  const all = [0, 1, 2, 3, 4].map(begin);
  await expect(begin(5)).rejects.toMatchObject({ code: 'too-often', message: 'Wait a minute.' });
  expect(begun).toEqual([0, 1]);

  ends[1]!('second');
  expect(await all[1]).toBe('second');
  expect(begun).toEqual([0, 1, 2]);
  all.push(begin(6));

  for (let at = 0; at < 6; at++) {
    ends[at]!('done');
    await new Promise((resolve) => setTimeout(resolve));
  }
  await Promise.all(all);
  expect(begun).toEqual([0, 1, 2, 3, 4, 6]);
});

test('work that fails gives its place on', async () => {
  const queue = boundedQueue(1, 1, 'Wait a minute.');
  const failing = queue(() => Promise.reject(new Error('no')));
  const next = queue(() => Promise.resolve('done'));
  await expect(failing).rejects.toThrow('no');
  expect(await next).toBe('done');
});
