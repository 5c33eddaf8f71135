import type { FieldId, RowId } from '../sheet/ids';
import { keysOf } from '../values/typed-keys';

/** What a role means. Permits, views, streams and screens ask this table, never for a role by its name. */
interface RoleTraits {
  /** Decides who gets the sheet, what it is called and whether it stays. */
  readonly owns: boolean;
  /** Works on the sheet itself, with its rules and its history. All others get a reader's view of it. */
  readonly makes: boolean;
  /** What they type into: every cell, the cells that are open to them, or none. */
  readonly enters: 'all' | 'open-cells' | 'nothing';
  /** Whether they get the legend: names, sentences and counts of the rules, and who else is here. */
  readonly hasLegend: boolean;
  /** Whether others see that they are here. */
  readonly isSeen: boolean;
}

/** The roles, the strongest first. */
export const ROLES = {
  owner: { owns: true, makes: true, enters: 'all', hasLegend: true, isSeen: true },
  editor: { owns: false, makes: true, enters: 'all', hasLegend: true, isSeen: true },
  filler: { owns: false, makes: false, enters: 'open-cells', hasLegend: false, isSeen: false },
  viewer: { owns: false, makes: false, enters: 'nothing', hasLegend: true, isSeen: true },
} as const satisfies Record<string, RoleTraits>;

export type SheetRole = keyof typeof ROLES;
type RolesThat<T extends Partial<RoleTraits>> = {
  [R in SheetRole]: (typeof ROLES)[R] extends T ? R : never;
}[SheetRole];
/** Those who work on the sheet itself. */
export type MakerRole = RolesThat<{ makes: true }>;
/** Those who get values and looks, but no rules. */
export type ReaderRole = Exclude<SheetRole, MakerRole>;
export type OwnerRole = RolesThat<{ owns: true }>;
/** Roles that a link or an invitation may give. */
export type LinkRole = Exclude<SheetRole, OwnerRole>;

export const SHEET_ROLES = keysOf(ROLES);

export const isOwner = (role: SheetRole): role is OwnerRole => ROLES[role].owns;
export const isMaker = (role: SheetRole): role is MakerRole => ROLES[role].makes;
export const isReader = (role: SheetRole): role is ReaderRole => !ROLES[role].makes;
/** True for those who type into the cells that are open to them, and nowhere else. */
export const isFiller = (role: SheetRole): boolean => ROLES[role].enters === 'open-cells';
export const mayEnter = (role: SheetRole): boolean => ROLES[role].enters !== 'nothing';
export const hasLegend = (role: SheetRole): boolean => ROLES[role].hasLegend;

export const MAKER_ROLES: readonly MakerRole[] = SHEET_ROLES.filter(isMaker);
export const READER_ROLES: readonly ReaderRole[] = SHEET_ROLES.filter(isReader);
export const LINK_ROLES: readonly LinkRole[] = SHEET_ROLES.filter((role) => !isOwner(role));

/** Refuses entries of those who only read. */
export const ONLY_READ = 'You are here to read: only its owner and editors change this sheet.';

/** Which of the open cells are a filler's own; null for all of them. With both given, a cell must be in both. */
export interface Own {
  readonly fields: readonly FieldId[] | null;
  readonly rows: readonly RowId[] | null;
}

/** Somebody who gets values and looks but no rules. */
export interface Reader {
  readonly role: ReaderRole;
  readonly own: Own;
}

export const OWN_ALL: Own = { fields: null, rows: null };

/** The role that may do more. */
export const strongerRole = (a: SheetRole, b: SheetRole): SheetRole =>
  SHEET_ROLES.indexOf(a) <= SHEET_ROLES.indexOf(b) ? a : b;
