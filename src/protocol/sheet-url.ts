import type { SheetId } from '../core/sheet/ids';

/** The address of a sheet in the app's HTTP interface, or of a resource below it, such as `changes?after=3`. */
export const sheetUrl = (id: SheetId, resource?: string): string =>
  `/api/sheets/${encodeURIComponent(id)}${resource === undefined ? '' : `/${resource}`}`;
