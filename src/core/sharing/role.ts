import type { FieldId, RowId } from '../sheet/ids';

/** The roles, the strongest first. */
export const SHEET_ROLES = ['owner', 'editor', 'filler', 'viewer'] as const;
export type SheetRole = (typeof SHEET_ROLES)[number];

/** Which of the open cells are a filler's own; null for all of them. With both given, a cell must be in both. */
export interface Own {
  readonly fields: readonly FieldId[] | null;
  readonly rows: readonly RowId[] | null;
}

/** Somebody who gets values and looks but no rules. */
export interface Reader {
  readonly role: 'filler' | 'viewer';
  readonly own: Own;
}

export const OWN_ALL: Own = { fields: null, rows: null };

/** True for those who work on the sheet itself, with its rules and its history. */
export const isMaker = (role: SheetRole): role is 'owner' | 'editor' => role === 'owner' || role === 'editor';

/** The role that may do more. */
export const strongerRole = (a: SheetRole, b: SheetRole): SheetRole =>
  SHEET_ROLES.indexOf(a) <= SHEET_ROLES.indexOf(b) ? a : b;
