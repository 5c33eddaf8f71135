import { type LinkRole, type SheetRole } from '../core/sharing/role';
import type { FieldId, RowId } from '../core/sheet/ids';

/** Where a filler who comes by a link types: all that is open, some fields or rows, or the next that nobody has yet. */
export type LinkGives =
  | { readonly kind: 'all' }
  | { readonly kind: 'fields'; readonly fields: readonly FieldId[] }
  | { readonly kind: 'rows'; readonly rows: readonly RowId[] }
  | { readonly kind: 'next-field' }
  | { readonly kind: 'next-row' };

/** A person with a role on a sheet. */
export interface Member {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: SheetRole;
}

/** A link as its owner sees it; moments are milliseconds of the Unix epoch. */
export interface SheetLink {
  readonly id: string;
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
  /** The address that it invites, for an invitation. */
  readonly invites: string | null;
  readonly endsAt: number | null;
  readonly usedAt: number | null;
  /** Names that visitors gave. */
  readonly visitors: readonly string[];
}

export interface SheetSharing {
  readonly members: readonly Member[];
  /** Valid links, and those that have ended by themselves; revoked ones are gone. */
  readonly links: readonly SheetLink[];
}

/** A link just made: the only moment at which its address is known. */
export interface MadeLink {
  readonly id: string;
  readonly name: string;
  readonly path: string;
}
