import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/**
 * Everything that a stream gives, through a temporary file: the stream is read at once, so that nothing it holds, such
 * as a connection to the database, waits for a slow reader. The file is removed once it was read or abandoned.
 */
export async function spooled(stream: Readable): Promise<Readable> {
  const folder = await mkdtemp(join(tmpdir(), 'auxesis-file-'));
  const remove = () => rm(folder, { recursive: true, force: true });
  try {
    const path = join(folder, 'file');
    await pipeline(stream, createWriteStream(path, { mode: 0o600 }));
    const file = createReadStream(path);
    file.once('close', () => void remove());
    return file;
  } catch (error) {
    await remove();
    throw error;
  }
}
