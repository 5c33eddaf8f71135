import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Readable } from 'node:stream';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Bytes in a second, on average after the first seconds, below which a file is too slow. */
const LEAST_RATE = 10_000;
const FIRST_SECONDS = 20;
/** Seconds for a whole file. */
const MAX_SECONDS = 280;
/** Files that are received side by side, of one sender and in all. */
const MAX_OF_ONE = 3;
const MAX_IN_ALL = 20;

const receiving = new Map<string, number>();
let inAll = 0;

/**
 * Receives a file into a temporary one, and hands its path to `take`; it is gone afterwards. So nobody who sends slowly
 * holds a transaction or a connection to the database. Throws a Refusal where it is too large or too slow, where too
 * many are on their way, and where it breaks off.
 */
export async function receiveFile<T>(
  body: Readable,
  { sender, maxBytes }: { readonly sender: string; readonly maxBytes: number },
  take: (path: string) => Promise<T>,
): Promise<T> {
  if (inAll >= MAX_IN_ALL || (receiving.get(sender) ?? 0) >= MAX_OF_ONE)
    throw new Refusal('too-busy', refusalText('otherFilesStillBeing'));
  receiving.set(sender, (receiving.get(sender) ?? 0) + 1);
  inAll++;
  const folder = await mkdtemp(join(tmpdir(), 'auxesis-file-'));
  try {
    const path = join(folder, 'file');
    await pipeline(body, watched(maxBytes), createWriteStream(path, { mode: 0o600 })).catch((error: unknown) => {
      throw error instanceof Refusal ? error : new Refusal('bad-request', refusalText('fileBrokeOffIts'));
    });
    return await take(path);
  } finally {
    await rm(folder, { recursive: true, force: true });
    inAll--;
    const left = receiving.get(sender)! - 1;
    if (left === 0) receiving.delete(sender);
    else receiving.set(sender, left);
  }
}

/** Passes bytes on while there are not too many of them and they come quickly enough. */
function watched(maxBytes: number): Transform {
  const began = performance.now();
  let passed = 0;
  const seconds = (): number => (performance.now() - began) / 1000;
  const isSlow = (): boolean =>
    seconds() > MAX_SECONDS || (seconds() > FIRST_SECONDS && passed / seconds() < LEAST_RATE);
  const slow = () => new Refusal('too-long', refusalText('fileComesTooSlowly'));
  const stream: Transform = new Transform({
    transform(chunk: Buffer, _, done) {
      passed += chunk.length;
      if (passed > maxBytes) done(new Refusal('too-long', refusalText('fileTooLargeMost', { maxBytes })));
      else done(isSlow() ? slow() : null, chunk);
    },
  });
  // A sender that sends nothing at all is noticed too.
  const timer = setInterval(() => isSlow() && stream.destroy(slow()), 2000).unref();
  stream.once('close', () => clearInterval(timer));
  return stream;
}
