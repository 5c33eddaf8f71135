import { inDigits } from '../../values/counted';
import { unzipSync } from 'fflate';
import { BadFile } from '../bad-file';
import { LIMITS } from '../limits';

/**
 * How many times larger than packed a part may be once it is of some size: letters that repeat reach 1,000, real sheets
 * 5 to 30.
 */
const MAX_GAIN = 200;
const SMALL = 1_000_000;

/**
 * The parts of a packed file (ISO/IEC 21320-1) by name. Sizes are checked before anything is unpacked, and unpacking
 * never makes more than was declared. Throws a BadFile.
 */
export function readZip(bytes: Uint8Array): ReadonlyMap<string, Uint8Array> {
  const names = new Set<string>();
  let total = 0;
  try {
    const parts = unzipSync(bytes, {
      filter({ name, size, originalSize }) {
        if (isUnsafe(name))
          throw new BadFile(`it holds a part called “${name.slice(0, 60)}”, which points out of the file`);
        if (names.has(name)) throw new BadFile(`it holds two parts called “${name.slice(0, 60)}”`);
        if (names.add(name).size > LIMITS.parts)
          throw new BadFile(`it holds more than ${inDigits(LIMITS.parts)} parts`);
        if (originalSize > SMALL && originalSize > size * MAX_GAIN)
          throw new BadFile(
            `its part “${name.slice(0, 60)}” would grow ${inDigits(Math.round(originalSize / Math.max(1, size)))} times when unpacked`,
          );
        total += originalSize;
        if (total > LIMITS.unpackedBytes)
          throw new BadFile(`unpacked, it comes to more than ${inDigits(Math.round(LIMITS.unpackedBytes / 1e6))} MB`);
        return !name.endsWith('/');
      },
    });
    return new Map(Object.entries(parts));
  } catch (error) {
    if (error instanceof BadFile) throw error;
    throw new BadFile('it cannot be unpacked: it is cut off, damaged, or locked by a password');
  }
}

const isUnsafe = (name: string): boolean => /^[/\\]|\\|^[a-z]:|\0/i.test(name) || name.split('/').includes('..');

/** Whether bytes begin like a packed file. */
export const isZip = (head: Uint8Array): boolean =>
  head[0] === 0x50 && head[1] === 0x4b && (head[2] === 3 || head[2] === 5);
