import { readCsv } from '../../core/exchange/csv/read-csv';

/** What another program, or this one, has put on the clipboard. */
export interface ClipboardTable {
  /** Names what was copied here, which the engine still has with formulas and styles. */
  readonly token: string | null;
  readonly rows: readonly (readonly string[])[];
}

/** Reads a table from a clipboard: from HTML where there is one, else from plain text, lines of cells with tabs between them. */
export function readClipboard(data: DataTransfer): ClipboardTable | null {
  const html = data.getData('text/html');
  const table = html ? new DOMParser().parseFromString(html, 'text/html').querySelector('table') : null;
  if (table) return { token: table.dataset.cells ?? null, rows: Array.from(table.rows, rowTexts) };
  const text = data.getData('text/plain');
  if (text === '') return null;
  const read = readCsv(text.replace(/\r?\n$/, ''), '\t');
  return { token: null, rows: 'rows' in read ? read.rows : text.split(/\r?\n/).map((line) => line.split('\t')) };
}

/** A cell over several columns holds its text in the first. */
function rowTexts({ cells }: HTMLTableRowElement): string[] {
  return Array.from(cells).flatMap((cell) => [
    (cell.textContent ?? '').replace(/\s+/g, ' ').trim(),
    ...Array<string>(Math.max(0, cell.colSpan - 1)).fill(''),
  ]);
}
