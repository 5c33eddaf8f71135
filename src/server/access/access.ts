import type { Own, SheetRole } from '../../core/sharing/role';
import type { Person } from '../sql/person';

/** The access of a person to a sheet. */
export interface Access {
  readonly role: SheetRole;
  readonly own: Own;
  /** How changes are signed: `person ID` or `visitor ID`. */
  readonly author: string;
  readonly name: string;
  /** The account, where they are signed in. */
  readonly person: Person | undefined;
}

/** An access, and until when it lasts by itself (milliseconds of the Unix epoch). */
export interface FoundAccess {
  readonly access: Access;
  readonly endsAt: number | null;
}
