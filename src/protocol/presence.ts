import type { SheetRole } from '../core/sharing/role';
import type { FieldId, RowId } from '../core/sheet/ids';

/** A range by what it is: from one cell to another. */
export interface PresentPlace {
  readonly from: { readonly row: RowId; readonly field: FieldId };
  readonly to: { readonly row: RowId; readonly field: FieldId };
}

/** Somebody who has a sheet open. */
export interface Present {
  /** Of the page that they have open; a person may have several. */
  readonly key: string;
  readonly name: string;
  readonly role: SheetRole;
  /** Their selection, for those who may see it. */
  readonly place: PresentPlace | null;
}

/** How often a page says that it is still there. */
export const PRESENCE_BEAT_MS = 10_000;
