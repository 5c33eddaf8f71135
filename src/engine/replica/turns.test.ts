import { describe, expect, test } from 'vitest';
import { Stopped, Turns } from './turns';

const done: string[] = [];
const log = (word: string) => () => void done.push(word);
const long = (turns: Turns, word: string, parts: number) => async () => {
  for (let part = 0; part < parts; part++) {
    done.push(`${word}${part}`);
    await turns.rest(part / parts);
  }
  return word;
};

describe('turns', () => {
  test('what is quick is done at once, and what comes during long work after it, in order', async () => {
    done.length = 0;
    const turns = new Turns(() => {});
    const first = turns.take(log('now'));
    expect(done).toEqual(['now']);
    await first;
    const all = [
      turns.take(long(turns, 'a', 2)),
      turns.take(log('b')),
      turns.take(long(turns, 'c', 2)),
      turns.take(log('d')),
    ];
    expect(done).toEqual(['now', 'a0']);
    await Promise.all(all);
    expect(done).toEqual(['now', 'a0', 'a1', 'b', 'c0', 'c1', 'd']);
  });

  test('long work is stopped at its next rest; what waits is not, nor is what comes later', async () => {
    done.length = 0;
    const shares: number[] = [];
    const turns = new Turns((share) => shares.push(share));
    const stopped = turns.take(long(turns, 'a', 5));
    const waiting = turns.take(long(turns, 'b', 2));
    turns.stop();
    await expect(stopped).rejects.toBeInstanceOf(Stopped);
    expect(await waiting).toBe('b');
    expect(done).toEqual(['a0', 'b0', 'b1']);
    expect(shares).toEqual([0, 0, 0.5]);
    // A stop that comes when nothing is being done stops nothing.
    turns.stop();
    expect(await turns.take(long(turns, 'c', 1))).toBe('c');
  });

  test('work that fails fails for whoever asked, and the next goes on', async () => {
    const turns = new Turns(() => {});
    const failing = turns.take(() => Promise.reject(new Error('no')));
    const next = turns.take(() => 'yes');
    await expect(failing).rejects.toThrow('no');
    expect(await next).toBe('yes');
    await expect(
      turns.take(() => {
        throw new Error('at once');
      }),
    ).rejects.toThrow('at once');
    expect(await turns.take(() => 'still')).toBe('still');
  });
});
