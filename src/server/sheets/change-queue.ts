import type { SheetId } from '../../core/sheet/ids';

/** What became of one piece of work. */
export type Outcome<R> = { readonly value: R } | { readonly error: unknown };

interface Waiting<T, R> {
  readonly work: T;
  /** When it came (`performance.now`). */
  readonly since: number;
  readonly resolve: (value: R) => void;
  readonly reject: (error: unknown) => void;
}

/** Does several pieces of work on a sheet at once; an outcome for each, in their order. */
type DoTogether<T, R> = (sheet: SheetId, works: readonly T[]) => Promise<readonly Outcome<R>[]>;

/**
 * Does work on each sheet in the order in which it came. While some is being done, what comes waits, and is done
 * together as far as it may be. The sheet's head would keep the order by itself; but who waits for it there holds a
 * connection meanwhile, and all connections could be waiting.
 */
export class ChangeQueue<T, R> {
  private readonly sheets = new Map<SheetId, Waiting<T, R>[]>();

  constructor(
    private readonly doTogether: DoTogether<T, R>,
    /** How many of those that wait, the first ones, are done at once: at least one. */
    private readonly together: (works: readonly T[]) => number,
  ) {}

  /** How much waits for all sheets. */
  inAll = 0;

  /** How much waits for a sheet. */
  waiting(sheet: SheetId): number {
    return this.sheets.get(sheet)?.length ?? 0;
  }

  /** How long the first that waits for a sheet has waited, in milliseconds. */
  waitedMs(sheet: SheetId): number {
    const first = this.sheets.get(sheet)?.[0];
    return first ? performance.now() - first.since : 0;
  }

  add(sheet: SheetId, work: T): Promise<R> {
    this.inAll++;
    return new Promise<R>((resolve, reject) => {
      const waiting = { work, since: performance.now(), resolve, reject };
      const queue = this.sheets.get(sheet);
      if (queue) queue.push(waiting);
      else {
        const own = [waiting];
        this.sheets.set(sheet, own);
        void this.drain(sheet, own);
      }
    });
  }

  private async drain(sheet: SheetId, queue: Waiting<T, R>[]): Promise<void> {
    while (queue.length > 0) {
      const group = queue.splice(0, this.together(queue.map(({ work }) => work)));
      this.inAll -= group.length;
      try {
        const outcomes = await this.doTogether(
          sheet,
          group.map(({ work }) => work),
        );
        group.forEach(({ resolve, reject }, at) => {
          const outcome = outcomes[at]!;
          if ('value' in outcome) resolve(outcome.value);
          else reject(outcome.error);
        });
      } catch (error) {
        for (const { reject } of group) reject(error);
      }
    }
    this.sheets.delete(sheet);
  }
}
