import { itemAt } from '../../core/values/item-at';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { showReferences } from '../../core/formula/resolve/keep-references';
import { tableWidth, transposed, type PastedCell } from '../../core/edit/cells';
import { readCsv } from '../../core/exchange/csv/read-csv';
import { writeCsv } from '../../core/exchange/csv/write-csv';
import { cssOf } from '../../core/looks/css-of';
import type { Style } from '../../core/looks/style';
import type { CopiedText, PasteHow, RequestOf } from '../../protocol/engine-messages';
import type { Area } from '../../protocol/sheet-view';
import { shownAt } from '../../core/sheet/shown-cell';
import type { Replica } from '../replica/replica';

interface CopiedCell {
  readonly input: string;
  readonly shown: string;
  readonly style: Style | null;
}

/** The last copy from here, with formulas and styles: more than the text for other programs. */
export interface Copied {
  readonly token: string;
  readonly area: Area;
  readonly rows: readonly (readonly CopiedCell[])[];
}

/** Copies an area: for a paste here, and as plain text and as a table with its looks for other programs. */
export function copyArea(replica: Replica, area: Area, token: string): { copied: Copied; text: CopiedText } {
  const { sheet } = replica;
  const slots = sheet.order.slice(area.top, area.bottom + 1);
  const columns = Array.from({ length: area.right - area.left + 1 }, (_, at) => area.left + at);
  const rows = slots.map((slot) =>
    columns.map((column): CopiedCell => ({
      input: showReferences(sheet.column(column).inputAt(slot), sheet, slot),
      shown: shownAt(sheet, column, slot),
      style: sheet.styleAt(column, slot) ?? null,
    })),
  );
  const html = slots.map((slot, at) => {
    const cells = columns.map((column, across) => {
      const look = Object.fromEntries(replica.resolvedLook(column, slot).properties);
      const css = cssOf({ ...itemAt(itemAt(rows, at), across).style, ...look });
      return `<td${css ? ` style="${css}"` : ''}>${escapeHtml(itemAt(itemAt(rows, at), across).shown)}</td>`;
    });
    return `<tr>${cells.join('')}</tr>`;
  });
  const plain = writeCsv({ rows: rows.map((row) => row.map(({ shown }) => shown)), width: columns.length }, '\t');
  return {
    copied: { token, area, rows },
    text: { text: plain.replace(/\r\n$/, ''), html: `<table data-cells="${token}">${html.join('')}</table>` },
  };
}

const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * The cells to paste, and the area that they take: what was copied here, with formulas and styles, or a table of texts
 * from elsewhere, each read as if it were typed. One cell fills the whole area.
 */
export function cellsToPaste(
  { area, token, table, how }: RequestOf<'paste'>,
  copied: Copied | null,
  readTyped: (text: string) => string,
): { readonly rows: readonly (readonly PastedCell[])[]; readonly area: Area } {
  const { left, top } = area;
  const own =
    token !== null && copied?.token === token ? pastedCells(copied, { column: left, position: top }, how) : null;
  const read = own ? [] : readPasted(table).map((row) => row.map((text): PastedCell => ({ input: readTyped(text) })));
  const cells = own ?? (how === 'transposed' ? transposed(read) : read);
  const single = cells.length === 1 && cells[0]?.length === 1 ? cells[0][0] : undefined;
  const rows = single ? spread(single, area) : cells;
  const right = left + Math.max(1, tableWidth(rows)) - 1;
  return { rows, area: { left, top, right, bottom: top + Math.max(1, rows.length) - 1 } };
}

/** The cells to paste at a place: what was copied here, as it was asked for. */
function pastedCells({ rows, area }: Copied, at: { column: number; position: number }, how: PasteHow): PastedCell[][] {
  const by = { columns: at.column - area.left, rows: at.position - area.top };
  const cells = rows.map((row) =>
    row.map(({ input, shown, style }): PastedCell => {
      if (how === 'looks') return { style };
      if (how === 'values') return { input: isFormulaInput(input) ? shown : input };
      return { input, style, by };
    }),
  );
  return how === 'transposed' ? transposed(cells) : cells;
}

/** The cells of what another program has put on the clipboard: lines with tabs between the cells. */
export function readPasted(table: string | readonly (readonly string[])[]): readonly (readonly string[])[] {
  if (typeof table !== 'string') return table;
  const text = table.replace(/\r?\n$/, '');
  const read = text.includes('"') ? readCsv(text, '\t') : null;
  return read && 'rows' in read ? read.rows : text.split(/\r?\n/).map((line) => line.split('\t'));
}

/** One cell in each place of an area. Its formula moves along. */
const spread = (cell: PastedCell, { left, top, right, bottom }: Area): PastedCell[][] =>
  Array.from({ length: bottom - top + 1 }, (_, down) =>
    Array.from({ length: right - left + 1 }, (__, across) =>
      cell.by ? { ...cell, by: { columns: cell.by.columns + across, rows: cell.by.rows + down } } : cell,
    ),
  );
