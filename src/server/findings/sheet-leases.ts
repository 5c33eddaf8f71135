import { nanoid } from 'nanoid';
import { hostname } from 'node:os';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { renewLeases, takeLease } from '../sql/lease';

/** How long a lease is good for: as long a sheet goes without a keeper when its process falls over. */
const LEASE_MS = 3000;

/**
 * The sheets that this process keeps, of those that several processes could: each has one keeper at a time. Others hear
 * until when a lease lasts, and take over where it ended.
 */
export class SheetLeases {
  /** Until when leases are ours, and others', by the clock of this process. */
  private readonly ours = new Map<SheetId, number>();
  private readonly theirs = new Map<SheetId, number>();
  /** For operators: by it they see which process keeps a sheet. */
  private readonly owner = `${hostname()} ${process.pid} ${nanoid()}`;

  constructor(
    private readonly sql: Sql,
    private readonly forMs = LEASE_MS,
  ) {}

  /** Whether a sheet is ours now: it is taken where nobody has it. */
  async take(sheet: SheetId): Promise<boolean> {
    const now = Date.now();
    if ((this.ours.get(sheet) ?? 0) - now > this.forMs / 2) return true;
    const theirsMs = await takeLease(this.sql, sheet, { owner: this.owner, forMs: this.forMs });
    this.ours.delete(sheet);
    this.theirs.delete(sheet);
    if (theirsMs === 0) this.ours.set(sheet, now + this.forMs);
    else this.theirs.set(sheet, now + theirsMs);
    return theirsMs === 0;
  }

  /** How long a sheet is somebody else's yet, as far as is known, in milliseconds. */
  theirsMs(sheet: SheetId): number {
    return Math.max(0, (this.theirs.get(sheet) ?? 0) - Date.now());
  }

  /** Keeps sheets for longer. Gives those that are not ours any more. */
  async renew(sheets: readonly SheetId[]): Promise<readonly SheetId[]> {
    for (const [sheet, until] of this.theirs) if (until < Date.now()) this.theirs.delete(sheet);
    if (sheets.length === 0) return [];
    const now = Date.now();
    const still = await renewLeases(this.sql, sheets, { owner: this.owner, forMs: this.forMs });
    for (const sheet of still) this.ours.set(sheet, now + this.forMs);
    const lost = sheets.filter((sheet) => !still.has(sheet));
    for (const sheet of lost) this.ours.delete(sheet);
    return lost;
  }

  /** How often they are to be renewed. */
  get everyMs(): number {
    return this.forMs / 3;
  }
}
