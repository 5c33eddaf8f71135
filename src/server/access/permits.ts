import { isMaker, type SheetRole, isOwner, mayEnter, ONLY_READ } from '../../core/sharing/role';
import { Refusal } from '../refusal';
import type { Access } from './access';

/** The permits on a sheet, the roles that have them, and the words for a refusal. */
const PERMITS = {
  /** Open the sheet and follow it: each gets what their role may see. */
  read: { may: () => true, says: '' },
  /** Enter something: what exactly is looked at cell by cell. */
  enter: {
    may: mayEnter,
    says: ONLY_READ,
  },
  /** Everything that is in the sheet, its rules and its history with it. */
  work: { may: isMaker, says: 'Only the owner and editors of this sheet get its rules and its history.' },
  /** Who else may do what; the sheet's name; removing it. */
  own: {
    may: isOwner,
    says: 'Only its owner decides who gets this sheet, what it is called, and whether it stays.',
  },
} satisfies Record<string, { may: (role: SheetRole) => boolean; says: string }>;

export type Permit = keyof typeof PERMITS;

/** Throws a Refusal where somebody may not. */
export function requirePermit({ role }: Access, permit: Permit): void {
  if (!PERMITS[permit].may(role)) throw new Refusal('not-allowed', PERMITS[permit].says);
}
