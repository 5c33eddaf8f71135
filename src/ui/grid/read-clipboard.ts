/** The content of the clipboard, from another program or this one. */
export interface ClipboardTable {
  /** Names what was copied here, which the engine still has with formulas and styles. */
  readonly token: string | null;
  /** The cells, or lines with tabs between them, which the engine takes apart. */
  readonly table: string | readonly (readonly string[])[];
}

/** Letters of HTML from which reading them would hold up the page: then the plain text beside them is taken. */
const LONG_HTML = 1_000_000;
const TOKEN = /<table data-cells="([\w-]+)"/;

/**
 * Reads a table from a clipboard: from HTML where there is one, else from plain text, lines of cells with tabs between
 * them.
 */
export function readClipboard(data: DataTransfer): ClipboardTable | null {
  const html = data.getData('text/html');
  const text = data.getData('text/plain');
  const token = TOKEN.exec(html.slice(0, LONG_HTML))?.[1] ?? null;
  const isShort = html !== '' && (html.length < LONG_HTML || text === '');
  const table =
    isShort && token === null ? new DOMParser().parseFromString(html, 'text/html').querySelector('table') : null;
  if (table) return { token, table: Array.from(table.rows, rowTexts) };
  return text === '' ? null : { token, table: text };
}

/** A cell over several columns holds its text in the first. */
function rowTexts({ cells }: HTMLTableRowElement): string[] {
  return Array.from(cells).flatMap((cell) => [
    (cell.textContent ?? '').replace(/\s+/g, ' ').trim(),
    ...Array<string>(Math.max(0, cell.colSpan - 1)).fill(''),
  ]);
}
