import { existsSync, readFileSync, statSync } from 'node:fs';
import { relative } from 'node:path';
import { Readable } from 'node:stream';
import { expect, test, vi } from 'vitest';
import { receiveFile } from '../../src/server/spool/receive-file';
import { spooled } from '../../src/server/spool/spooled';

const usual = { sender: 'somebody', maxBytes: 1000 };

test('a file is there while it is taken, and gone afterwards', async () => {
  let path = '';
  let mode = 0;
  const length = await receiveFile(Readable.from([Buffer.alloc(400), Buffer.alloc(500)]), usual, (at) => {
    path = at;
    mode = statSync(at).mode & 0o777;
    return Promise.resolve(readFileSync(at).length);
  });
  expect([length, existsSync(path)]).toEqual([900, false]);
  // Nobody else on the computer reads it, and it lies outside the folder of the app.
  expect({ mode, isOutside: relative(process.cwd(), path).startsWith('..') }).toEqual({ mode: 0o600, isOutside: true });
});

test('one that is too large is refused while it comes', async () => {
  let sent = 0;
  const endless = Readable.from(
    (function* () {
      for (; ; sent++) yield Buffer.alloc(600);
    })(),
  );
  await expect(receiveFile(endless, usual, () => Promise.resolve())).rejects.toMatchObject({ code: 'too-long' });
  expect(sent).toBeLessThan(200);
});

test.each([
  ['nothing more comes', 0],
  ['little comes', 100],
  ['it takes too long as a whole', 250_000],
])('one is too slow where %s', async (_, bytesASecond) => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] });
  try {
    const slow = new Readable({ read() {} });
    const told: string[] = [];
    const received = receiveFile(slow, { sender: 'somebody slow', maxBytes: 1e9 }, () => Promise.resolve()).catch(
      (error: Error) => told.push(error.message),
    );
    while (told.length === 0) {
      if (bytesASecond > 0 && !slow.destroyed) slow.push(Buffer.alloc(bytesASecond));
      vi.advanceTimersByTime(1000);
      await new Promise(setImmediate);
    }
    await received;
    expect(told[0]).toContain('comes too slowly');
  } finally {
    vi.useRealTimers();
  }
});

test('an upload that breaks off is an error in plain words', async () => {
  const broken = new Readable({ read() {} });
  broken.push(Buffer.alloc(10));
  setTimeout(() => broken.destroy(new Error('aborted')), 10);
  await expect(receiveFile(broken, usual, () => Promise.resolve())).rejects.toMatchObject({
    code: 'bad-request',
    message: expect.stringContaining('broke off') as string,
  });
});

test('nobody sends more files at once than there is room for; others still can', async () => {
  const hanging = Array.from({ length: 3 }, () => new Readable({ read() {} }));
  const waiting = hanging.map((body) => receiveFile(body, usual, () => Promise.resolve('taken')));
  await expect(receiveFile(Readable.from(['x']), usual, () => Promise.resolve())).rejects.toMatchObject({
    code: 'too-busy',
  });
  expect(await receiveFile(Readable.from(['x']), { ...usual, sender: 'another' }, () => Promise.resolve('taken'))).toBe(
    'taken',
  );
  for (const body of hanging) body.push(null);
  expect(await Promise.all(waiting)).toEqual(['taken', 'taken', 'taken']);
  expect(await receiveFile(Readable.from(['x']), usual, () => Promise.resolve('taken'))).toBe('taken');
});

test('what goes to a slow reader is read at once, and holds nothing meanwhile', async () => {
  let isEnded = false;
  const source = Readable.from([Buffer.alloc(200_000), Buffer.alloc(200_000)]);
  source.once('end', () => (isEnded = true));
  const file = await spooled(source);
  // Nobody has read a byte of it yet.
  expect(isEnded).toBe(true);
  let length = 0;
  for await (const part of file) length += (part as Buffer).length;
  expect(length).toBe(400_000);
});
