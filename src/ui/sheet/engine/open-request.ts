import { isMaker, type Reader, type SheetRole } from '../../../core/sharing/role';
import type { SheetId } from '../../../core/sheet/ids';
import type { Decimal } from '../../../core/values/decimal-comma';
import { decimalSign } from '../../../texts/locale';
import type { RequestOf } from '../../../protocol/engine-messages';

/** How a sheet is looked at. */
export interface SessionOf {
  /** The change after which it is shown; undefined for the sheet of now. */
  readonly at?: number | undefined;
  /** Set for readers without rules, and for a preview of their view. */
  readonly reads?: { readonly as?: Reader['role'] };
  /** The key of this person for presence and the offline queue. If absent: neither. */
  readonly who?: string | undefined;
  /** The sign before decimals where this person is at home. */
  readonly decimal?: Decimal;
}

/** Who opens a sheet, and how. */
interface Visit {
  readonly role: SheetRole;
  /** As whom its owner or an editor wants to see it. */
  readonly as: Reader['role'] | undefined;
  /** The person’s key, where there is one. */
  readonly person: string | undefined;
  /** Of whom it is about: the language with the region of numbers. */
  readonly locale: string;
}

/** How a person looks at a sheet. Rules are sent to those who work on it, unless they preview another view. */
export const lookedAt = ({ role, as, person, locale }: Visit): SessionOf => ({
  who: person,
  decimal: decimalSign(locale),
  // Nothing undefined: what was asked early is compared with what is asked now.
  ...(as !== undefined ? { reads: { as } } : isMaker(role) ? {} : { reads: {} }),
});

/** What the engine is asked to open, but for the theme. */
export const openRequest = (
  sheet: SheetId,
  { at, reads, who, decimal }: SessionOf,
): Omit<RequestOf<'open'>, 'theme'> => ({
  kind: 'open',
  sheet,
  ...(at === undefined ? {} : { at }),
  ...(reads ? { reads } : {}),
  ...(who === undefined ? {} : { who }),
  ...(decimal === undefined ? {} : { decimal }),
});
