import type { FieldId, RowId } from '../sheet/ids';

/** What people may do with a sheet, the most first. */
export const SHEET_ROLES = ['owner', 'editor', 'filler', 'viewer'] as const;
export type SheetRole = (typeof SHEET_ROLES)[number];

/** What of the open cells is a filler's own; null for all of them. Both given, a cell must be in both. */
export interface Own {
  readonly fields: readonly FieldId[] | null;
  readonly rows: readonly RowId[] | null;
}

/** Somebody who gets values and looks and no rules. */
export interface Reader {
  readonly role: 'filler' | 'viewer';
  readonly own: Own;
}

export const OWN_ALL: Own = { fields: null, rows: null };

/** True for who works on the sheet itself, with its rules and its history. */
export const isMaker = (role: SheetRole): role is 'owner' | 'editor' => role === 'owner' || role === 'editor';

/** The role that may do more. */
export const strongerRole = (a: SheetRole, b: SheetRole): SheetRole => (SHEET_ROLES.indexOf(a) <= SHEET_ROLES.indexOf(b) ? a : b);
