import type { Look } from '../core/looks/look';
import type { LookPart } from '../core/sheet/sheet-part';
import type { SheetRole } from '../core/sharing/role';
import type { SheetId } from '../core/sheet/ids';

/** A sheet as the desk lists it. */
export interface SheetSummary {
  readonly id: SheetId;
  readonly name: string;
  /** ISO 8601 time of the last change. */
  readonly changedAt: string;
  /** Records that hold something. */
  readonly records: number;
  /** Null for who does not get them. */
  readonly rules: number | null;
  readonly role: SheetRole;
  /** The name of its first owner. */
  readonly owner: string | null;
}

/** A rule as the desk shows it. */
export interface SummedRule {
  readonly name: string;
  readonly on: boolean;
  /** Its look, or those of its outcomes. */
  readonly looks: readonly Look[];
  /** How many cells it paints; null where that is not known. */
  readonly painted: number | null;
}

/** Unseen findings that are counted on the desk: this many are “100 and more”. */
export const MOST_UNSEEN = 100;

/** A sheet with its legend, for those who get it. */
export interface DeskSheetSummary extends SheetSummary {
  readonly legend: readonly SummedRule[];
  /** The looks that it has saved itself. */
  readonly looks: readonly LookPart[];
  /** Findings that the person has not seen. */
  readonly unseen: number;
  /** The table of a database that it shows; null where its records are in it. */
  readonly linked: string | null;
}
