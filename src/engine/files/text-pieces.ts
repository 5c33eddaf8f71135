import { inDigits } from '../../core/values/counted';
import { BadFile } from '../../core/exchange/bad-file';
import type { Encoding } from '../../core/exchange/text/detect-encoding';
import { asWindows1252 } from '../../core/exchange/text/windows-1252';
import type { Progress } from './import-file';

/** The text of a file, piece by piece. Throws a BadFile where it is not text of this encoding. */
export async function* textPieces(
  file: Blob,
  encoding: Encoding,
  progress: Progress = () => {},
): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding, { fatal: encoding === 'utf-8' });
  const reader = file.stream().getReader();
  let passed = 0;
  const read = (piece: () => string): string => {
    const text = decode(piece, passed);
    return encoding === 'windows-1252' ? asWindows1252(text) : text;
  };
  try {
    for (let next = await reader.read(); !next.done; next = await reader.read()) {
      passed += next.value.length;
      yield read(() => decoder.decode(next.value, { stream: true }));
      progress(passed / file.size);
    }
    yield read(() => decoder.decode());
  } finally {
    await reader.cancel();
  }
}

function decode(piece: () => string, passed: number): string {
  try {
    return piece();
  } catch {
    throw new BadFile('it is not UTF-8 text: choose another encoding', `before byte ${inDigits(passed)}`);
  }
}
