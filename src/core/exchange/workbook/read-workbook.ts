import { BadFile } from '../bad-file';
import { isFlatOdf } from '../odf/flat';
import { isOdf, readOdf } from '../odf/read-odf';
import { isOoxml, readOoxml } from '../ooxml/read-ooxml';
import { isZip, readZip } from '../zip/read-zip';
import type { SheetInFile } from './sheet-in-file';

/** Whether bytes are those of a workbook, packed or one XML file. */
export const isWorkbook = (head: Uint8Array): boolean => isZip(head) || isFlatOdf(head);

/** A workbook in a file: which standard it follows, in words, and its sheets, which are read one at a time. */
export interface WorkbookInFile {
  readonly format: string;
  readonly sheets: readonly SheetInFile[];
}

const ODF = 'Workbook (ISO/IEC 26300)';

/** The standards of packed workbooks. */
const STANDARDS = [
  { format: ODF, isOne: isOdf, read: readOdf },
  { format: 'Workbook (ISO/IEC 29500)', isOne: isOoxml, read: readOoxml },
];

/** A workbook of either standard. Throws a BadFile. */
export function readWorkbook(bytes: Uint8Array): WorkbookInFile {
  if (isFlatOdf(bytes)) return { format: ODF, sheets: readOdf(new Map([['content.xml', bytes]])) };
  const parts = readZip(bytes);
  const standard = STANDARDS.find(({ isOne }) => isOne(parts));
  if (!standard) throw new BadFile('it is a packed file, but no workbook of ISO/IEC 26300 or ISO/IEC 29500');
  return { format: standard.format, sheets: standard.read(parts) };
}
