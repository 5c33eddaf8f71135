import { expect, test } from 'vitest';
import { LatestOnly } from './latest-only';

/** Work whose runs end on request, and how each ended. */
function heldWork() {
  const ends: ((how: 'done' | 'failed') => void)[] = [];
  const latest = new LatestOnly(
    () =>
      new Promise((resolve, reject) => {
        ends.push((how) => (how === 'done' ? resolve() : reject(new Error('the engine failed once'))));
      }),
  );
  return { latest, ends };
}

test('however often it is asked for meanwhile, it is run once more', async () => {
  const { latest, ends } = heldWork();
  const first = latest.run();
  for (let at = 0; at < 5; at++) void latest.run();
  ends[0]!('done');
  await expect.poll(() => ends.length).toBe(2);
  ends[1]!('done');
  await first;
  expect(ends).toHaveLength(2);
});

test('a run that fails keeps no later one from being tried', async () => {
  const { latest, ends } = heldWork();
  const first = latest.run();
  ends[0]!('failed');
  await expect(first).rejects.toThrow('failed once');
  const next = latest.run();
  expect(ends).toHaveLength(2);
  // Requests that came during the failure are carried out as well.
  void latest.run();
  ends[1]!('failed');
  await expect.poll(() => ends.length).toBe(3);
  ends[2]!('done');
  await next;
});
