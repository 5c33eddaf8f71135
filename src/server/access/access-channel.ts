import type { SheetId } from '../../core/sheet/ids';

/** The channel of changes of access: streams and views of the person are checked again. */
export const ACCESS_CHANGE_CHANNEL = 'access_change';

/** Whose access has changed: that of one person everywhere, or of anybody to one sheet. */
export type AccessChange = { readonly person: string } | { readonly sheet: SheetId };

/** A person, and the sheet that is served to them. */
export interface Served {
  readonly sheet: SheetId;
  /** As changes are signed: `person ID`, `visitor ID` or `program ID`. */
  readonly author: string;
  /** The account, also where somebody is served as a visitor. */
  readonly person?: string | undefined;
}

/** Whether a change of access may concern an open stream or view. */
export const concerns = (change: AccessChange, { sheet, author, person }: Served): boolean =>
  'sheet' in change ? change.sheet === sheet : author === `person ${change.person}` || person === change.person;
