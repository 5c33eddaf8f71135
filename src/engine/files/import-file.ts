import type { FilePreview, ReadingChange } from '../../protocol/import-messages';

/** Reports how much of the work is done, 0 to 1. */
export type Progress = (share: number) => void;

/**
 * A file that is open to be brought in: it can be looked at, read otherwise, and made into the lines of an archive.
 * Throws BadFiles.
 */
export interface ImportFile {
  preview(): FilePreview;
  change(change: ReadingChange, progress: Progress): Promise<void>;
  lines(name: string, progress: Progress): AsyncIterable<string>;
}

/** A name for the sheet: the file's, without its ending. */
export const nameOfFile = (file: string): string =>
  file
    .replace(/\.[^.]{1,8}$/, '')
    .trim()
    .slice(0, 120) || 'Sheet';
