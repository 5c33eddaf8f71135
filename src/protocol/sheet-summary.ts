import type { SheetRole } from '../core/sharing/role';
import type { SheetId } from '../core/sheet/ids';

/** A sheet as the desk lists it. */
export interface SheetSummary {
  readonly id: SheetId;
  readonly name: string;
  /** ISO 8601 time of the last change. */
  readonly changedAt: string;
  readonly records: number;
  /** Null for who does not get them. */
  readonly rules: number | null;
  readonly role: SheetRole;
  /** The name of its first owner. */
  readonly owner: string | null;
}
