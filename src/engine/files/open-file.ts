import { inDigits } from '../../core/values/counted';
import { BadFile } from '../../core/exchange/bad-file';
import { LIMITS } from '../../core/exchange/limits';
import { formatOf } from '../../core/exchange/import-formats';
import { FLAT_HEAD } from '../../core/exchange/odf/flat';
import { ArchiveFile } from './archive-file';
import type { ImportFile, Progress } from './import-file';
import { TextFile } from './text-file';
import { WorkbookFile } from './workbook-file';

/** Opens a file to be brought in, by what is in it. Throws a BadFile. */
export async function openFile(file: File, progress: Progress): Promise<ImportFile> {
  if (file.size === 0) throw new BadFile('the file is empty');
  if (file.size > LIMITS.fileBytes)
    throw new BadFile(
      `the file has ${inDigits(Math.round(file.size / 1e6))} MB; at most ${inDigits(Math.round(LIMITS.fileBytes / 1e6))} are read`,
    );
  const head = new Uint8Array(await file.slice(0, FLAT_HEAD).arrayBuffer());
  const format = formatOf(head, file.name);
  switch (format.gives) {
    case 'archive':
      return ArchiveFile.open(file, progress);
    case 'workbook':
      return WorkbookFile.open(file, format.read);
    case 'table':
    case 'rows':
      return TextFile.open(file, format, progress);
  }
}
