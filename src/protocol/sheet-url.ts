import type { SheetId } from '../core/sheet/ids';

/** The address of a sheet in the app's HTTP interface, or of a resource below it, such as `changes?after=3`. */
export const sheetUrl = (id: SheetId, resource?: string): string =>
  `/api/sheets/${encodeURIComponent(id)}${resource === undefined ? '' : `/${resource}`}`;

/** The address of the page that shows a sheet, or of another page about it, such as `history`. */
export const sheetPageUrl = (id: SheetId, page?: 'findings' | 'history' | 'paper'): string =>
  `/sheets/${encodeURIComponent(id)}${page === undefined ? '' : `/${page}`}`;
