import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

/** The channel on which it is told that somebody may do less or more than before: whoever is being served is looked at again. */
export const ACCESS_CHANGE_CHANNEL = 'access_change';

/** Whose access has changed: that of one person everywhere, or of anybody to one sheet. */
export type AccessChange = { readonly person: string } | { readonly sheet: SheetId };

/** Who is being served with what. */
export interface Served {
  readonly sheet: SheetId;
  /** As changes are signed: `person ID`, `visitor ID` or `program ID`. */
  readonly author: string;
  /** The account, also where somebody is served as a visitor. */
  readonly person?: string | undefined;
}

/** Tells every process, once the transaction is committed. */
export async function tellAccessChanged(sql: Queryable, change: AccessChange): Promise<void> {
  await sql`select pg_notify(${ACCESS_CHANGE_CHANNEL}, ${JSON.stringify(change)})`;
}

/** Whether a change of access may concern somebody who is being served. */
export const concerns = (change: AccessChange, { sheet, author, person }: Served): boolean =>
  'sheet' in change ? change.sheet === sheet : author === `person ${change.person}` || person === change.person;
