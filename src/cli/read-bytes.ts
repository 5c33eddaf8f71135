import { readFileSync } from 'node:fs';
import { codeOf } from '../core/values/error-message';
import { BadFile } from '../core/exchange/bad-file';
import { BadInput } from './bad-input';

export const placeOf = (path: string): string => (path === '-' ? 'standard input' : path);

/** The name of a sheet whose file gives none. */
export const nameOf = (path: string): string =>
  path === '-' ? 'Sheet' : path.replace(/^.*[\\/]/, '').replace(/\.[^.]+$/, '');

/** Standard input can be read once. */
let standardInput: Uint8Array | undefined;

/** A file, or standard input where the path is `-`. Throws a BadInput. */
export function readBytes(path: string): Uint8Array {
  try {
    if (path === '-') return (standardInput ??= new Uint8Array(readFileSync(0)));
    return new Uint8Array(readFileSync(path));
  } catch (error) {
    const code = codeOf(error);
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'this is a folder; expected a file'
          : code === 'EACCES'
            ? 'it may not be read'
            : `it cannot be read (${code})`;
    throw new BadInput(path, why, { cause: error });
  }
}

/** The text of a file. Throws a BadInput. */
export const readText = (path: string): string => textOf(path, readBytes(path));

/** The text that some bytes of a file are. Throws a BadInput. */
export function textOf(path: string, bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    throw new BadInput(placeOf(path), 'it is not UTF-8 text', { cause: error });
  }
}

/** Reads what is in a file; a BadFile becomes a BadInput that names the file and the place in it. */
export function telling<T>(path: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof BadFile)) throw error;
    throw new BadInput([placeOf(path), error.place].filter(Boolean).join(', '), error.message, { cause: error });
  }
}
