import { BadFile } from '../../core/exchange/bad-file';
import { LIMITS, limitText } from '../../core/exchange/limits';
import { otherKind } from '../../core/exchange/import/other-kind';
import { FLAT_HEAD } from '../../core/exchange/odf/flat';
import { isWorkbook } from '../../core/exchange/workbook/read-workbook';
import { ArchiveFile } from './archive-file';
import type { ImportFile, Progress } from './import-file';
import { TextFile } from './text-file';
import { WorkbookFile } from './workbook-file';

/** Opens a file to be brought in, by what is in it. Throws a BadFile. */
export async function openFile(file: File, progress: Progress): Promise<ImportFile> {
  if (file.size === 0) throw new BadFile('the file is empty');
  if (file.size > LIMITS.fileBytes)
    throw new BadFile(
      `the file has ${limitText(Math.round(file.size / 1e6))} MB; at most ${limitText(Math.round(LIMITS.fileBytes / 1e6))} are read`,
    );
  const head = new Uint8Array(await file.slice(0, FLAT_HEAD).arrayBuffer());
  if (head[0] === 0x1f && head[1] === 0x8b) return ArchiveFile.open(file, progress);
  if (isWorkbook(head)) return WorkbookFile.open(file);
  const other = otherKind(head);
  if (other !== undefined) throw new BadFile(other);
  return TextFile.open(file, progress);
}
