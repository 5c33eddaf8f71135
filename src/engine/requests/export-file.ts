import { type ExportedFile } from '../../core/exchange/exported-file';
import { EXPORT_FORMATS, fileNameOf, type ExportFormat } from '../../core/exchange/export-formats';
import { exportSource } from '../../core/exchange/export-source';
import { savedLooks } from '../../core/sheet/sheet-looks';
import type { Exported, Request } from '../../protocol/engine-messages';
import type { Replica } from '../replica/replica';

/** Parts of a file that are joined before they become one of its blocks: a block costs more than a row. */
const PARTS_AT_ONCE = 500;

/**
 * Exports a sheet as it is here now, without drafts and personal rules. Looks are those of the light theme, as on
 * paper. Throws a BadFile where the format does not hold so much.
 */
export function exportFile(
  { sheet, evaluation, draftId, personal }: Replica,
  name: string,
  { format, options, area }: Extract<Request, { kind: 'export' }>,
): Exported {
  const { write, ending, type }: ExportFormat = EXPORT_FORMATS[format];
  const without = new Set([...personal.map(({ id }) => id), ...(draftId === undefined ? [] : [draftId])]);
  const looks = savedLooks(sheet.parts.values(), 'light');
  const { parts, report } = write(exportSource(evaluation, { name, looks, area, without }), options);
  return { file: new Blob(joined(parts), { type }), name: fileNameOf(name, ending), report };
}

function joined(parts: ExportedFile['parts']): BlobPart[] {
  const blocks: BlobPart[] = [];
  let texts: string[] = [];
  for (const part of parts) {
    if (typeof part !== 'string') blocks.push(part);
    else if (texts.push(part) === PARTS_AT_ONCE) {
      // As bytes at once: they take less than letters.
      blocks.push(new Blob(texts));
      texts = [];
    }
  }
  return texts.length ? [...blocks, new Blob(texts)] : blocks;
}
