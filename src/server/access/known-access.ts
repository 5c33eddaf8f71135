import type { SheetId } from '../../core/sheet/ids';
import { processWide } from '../process-wide';
import { concerns, type AccessChange } from './access-channel';
import type { FoundAccess } from './access';

/** How long what was found is used: a connection that hears of changes may be lost without a sign. */
const KNOWN_MS = 5000;
/** Accesses that are known at most: some 300 bytes each. */
const MOST_KNOWN = 20_000;

interface Known {
  readonly sheet: SheetId;
  readonly found: FoundAccess;
  readonly until: number;
}

/**
 * What was found lately of who may do what, so that not every request asks the database. Every process hears of a
 * change of access, and forgets at once what it concerns.
 */
export class KnownAccess {
  private readonly known = new Map<string, Known>();
  private changes = 0;
  /** Nothing is kept before changes of access are heard of. */
  private isTold = false;

  /** From now on `forget` is called with every change of access. */
  begin(): void {
    this.isTold = true;
  }

  /** What is known by a key; else what `find` gives, which is undefined where there is no access. */
  async get(
    key: string,
    sheet: SheetId,
    find: () => Promise<FoundAccess | undefined>,
  ): Promise<FoundAccess | undefined> {
    const now = Date.now();
    const known = this.known.get(key);
    if (known && known.until > now) return known.found;
    const before = this.changes;
    const found = await find();
    // What was found while access changed may be from before.
    if (!found || !this.isTold || this.changes !== before) return found;
    if (this.known.size >= MOST_KNOWN) this.known.clear();
    this.known.set(key, { sheet, found, until: Math.min(now + KNOWN_MS, found.endsAt ?? Infinity) });
    return found;
  }

  /** Forgets whom a change concerns; everybody without one, where some may have been missed. */
  forget(change?: AccessChange): void {
    this.changes++;
    if (!change) return this.known.clear();
    for (const [key, { sheet, found }] of this.known)
      if (concerns(change, { sheet, author: found.access.author, person: found.access.person?.id }))
        this.known.delete(key);
  }
}

/** Those of the process. */
export const knownAccess = (): KnownAccess => processWide('known-access', () => new KnownAccess());
