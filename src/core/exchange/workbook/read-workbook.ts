import { BadFile } from '../bad-file';
import { isFlatOdf } from '../odf/flat';
import { isOdf, readOdf } from '../odf/read-odf';
import { isOoxml, readOoxml } from '../ooxml/read-ooxml';
import { isZip, readZip } from '../zip/read-zip';
import type { SheetInFile } from './sheet-in-file';

/** Whether bytes are those of a workbook, packed or one XML file. */
export const isWorkbook = (head: Uint8Array): boolean => isZip(head) || isFlatOdf(head);

/** A workbook of either standard, and which. Throws a BadFile. */
export function readWorkbook(bytes: Uint8Array): { readonly format: string; readonly sheets: readonly SheetInFile[] } {
  if (isFlatOdf(bytes))
    return { format: 'Workbook (ISO/IEC 26300)', sheets: readOdf(new Map([['content.xml', bytes]])) };
  const parts = readZip(bytes);
  if (isOdf(parts)) return { format: 'Workbook (ISO/IEC 26300)', sheets: readOdf(parts) };
  if (isOoxml(parts)) return { format: 'Workbook (ISO/IEC 29500)', sheets: readOoxml(parts) };
  throw new BadFile('it is a packed file, but no workbook of ISO/IEC 26300 or ISO/IEC 29500');
}
