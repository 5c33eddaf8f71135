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
export const readClipboard = (data: DataTransfer): ClipboardTable | null =>
  tableOf(data.getData('text/html'), data.getData('text/plain'));

/** The same without a paste event; null also where the browser does not allow it. */
export async function readSystemClipboard(): Promise<ClipboardTable | null> {
  try {
    const [item] = await navigator.clipboard.read();
    const read = async (type: string) => (item?.types.includes(type) ? (await item.getType(type)).text() : '');
    return tableOf(await read('text/html'), await read('text/plain'));
  } catch {
    return null;
  }
}

function tableOf(html: string, text: string): ClipboardTable | null {
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
