import { BadFile } from '../bad-file';
import { isOdf, readOdf } from '../odf/read-odf';
import { isOoxml, readOoxml } from '../ooxml/read-ooxml';
import { readZip } from '../zip/read-zip';
import type { SheetInFile } from './sheet-in-file';

/** A workbook of either standard, and which. Throws a BadFile. */
export function readWorkbook(bytes: Uint8Array): { readonly format: string; readonly sheets: readonly SheetInFile[] } {
  const parts = readZip(bytes);
  if (isOdf(parts)) return { format: 'Workbook (ISO/IEC 26300)', sheets: readOdf(parts) };
  if (isOoxml(parts)) return { format: 'Workbook (ISO/IEC 29500)', sheets: readOoxml(parts) };
  throw new BadFile('it is a packed file, but no workbook of ISO/IEC 26300 or ISO/IEC 29500');
}
