import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { SheetId } from '../../core/sheet/ids';
import { database, type Sql } from '../database';
import { liveHub } from '../live/hub';
import { readPast } from '../sheets/read-past';
import { packedAsOf } from '../sheets/sheet-as-of';
import { readChangesAfter } from '../sql/change/read-changes-after';
import { findFindingHead, moveFindingHead, sheetsBehind, sheetsByClock, type FindingHead } from '../sql/finding/heads';
import { insertFindings, type InsertedFinding } from '../sql/finding/insert-findings';
import { readAuthors } from '../sql/finding/read-authors';
import { findSnapshot } from '../sql/snapshot/find-snapshot';
import { Thread } from '../threads/thread';
import type { FindingsQuestions, FoundAt } from './kept-sheet';
import { passOn } from './pass-on';

/** Changes looked at together. */
const BATCH = 100;
/** How long a sheet stays open after its last change. */
const IDLE_MS = 120_000;
/** How long changes are gathered before they are looked at. */
const GATHER_MS = 250;
/** How often sheets that nobody uses are looked at for the sake of the clock. */
const CLOCK_MS = 3_600_000;
/** How often the clock is looked at. */
const TICK_MS = 60_000;

/** A sheet that is open in the thread: up to where, and since when nothing has happened. */
interface Kept {
  sequence: number;
  usedAt: number;
}

const beginThread = (): Worker => new Worker(join(process.cwd(), 'dist', 'findings.cjs'));

/**
 * Keeps the findings of all sheets: follows every change, also while nobody is looking, and writes down what entered and left each rule.
 * Several processes may do so at once; whoever is quicker with a change has it.
 */
export class FindingsKeeper {
  private readonly kept = new Map<SheetId, Kept>();
  /** Sheets that are being looked at; `again` where something has happened meanwhile. */
  private readonly busy = new Map<SheetId, 'once' | 'again'>();
  private clockAt = 0;
  private readonly gathering = new Set<SheetId>();
  private readonly thread = new Thread<FindingsQuestions>('findings', beginThread, { ended: () => this.kept.clear() });

  constructor(private readonly sql: Sql) {}

  /** Begins: catches up with what happened while no process ran. */
  async start(): Promise<void> {
    await liveHub().followAll((sheet) => this.lookSoon(sheet));
    setInterval(() => void this.tick(), TICK_MS).unref();
    for (const sheet of await sheetsBehind(this.sql)) await this.look(sheet);
  }

  /** Looks at a sheet once a little has been gathered: nobody waits for its findings. */
  private lookSoon(sheet: SheetId): void {
    if (this.gathering.has(sheet)) return;
    this.gathering.add(sheet);
    setTimeout(() => {
      this.gathering.delete(sheet);
      void this.look(sheet);
    }, GATHER_MS);
  }

  /** Looks at a sheet of which there may be something new. Resolves once it has caught up. */
  async look(sheet: SheetId): Promise<void> {
    if (this.busy.has(sheet)) return void this.busy.set(sheet, 'again');
    try {
      do {
        this.busy.set(sheet, 'once');
        while (await this.lookOnce(sheet));
      } while (this.busy.get(sheet) === 'again');
    } catch (error) {
      console.error('looking for findings failed', error);
      this.kept.delete(sheet);
    } finally {
      this.busy.delete(sheet);
    }
  }

  /** Looks at the next changes; false where there are none. */
  private async lookOnce(sheet: SheetId): Promise<boolean> {
    const head = await findFindingHead(this.sql, sheet);
    if (!head || head.sequence >= head.last) return false;
    const changes = await readChangesAfter(this.sql, sheet, { after: head.sequence, limit: BATCH });
    const last = changes.at(-1);
    if (!last) return false;
    const isQuiet = !head.hasRules && !changes.some(({ change }) => change.operations.some(({ kind }) => kind === 'put-rules'));
    if (isQuiet) {
      // Without rules there is nothing to find, and nothing to open.
      await this.drop(sheet);
      await moveFindingHead(this.sql, sheet, { from: head, to: last.sequence, at: last.at });
      return true;
    }
    await this.open(sheet, head);
    const found = await this.thread.ask('take', { sheet, changes });
    this.kept.set(sheet, { sequence: last.sequence, usedAt: Date.now() });
    const isOurs = await this.keep(sheet, { head, to: last.sequence, at: last.at, found });
    if (!isOurs) await this.drop(sheet);
    return isOurs;
  }

  private async open(sheet: SheetId, head: FindingHead): Promise<void> {
    if (this.kept.get(sheet)?.sequence === head.sequence) return;
    // A copy that is kept anyhow is at hand at once; taking later changes back is work.
    const copy = await findSnapshot(this.sql, sheet);
    const isOlder = copy !== undefined && copy.sequence <= head.sequence;
    const packed = isOlder ? copy.packed : await packedAsOf(this.sql, sheet, head.sequence);
    const { wantsPast } = await this.thread.ask('open', { sheet, packed, atMs: head.at });
    for (let after = isOlder ? copy.sequence : head.sequence; after < head.sequence;) {
      const known = (await readChangesAfter(this.sql, sheet, { after, limit: BATCH })).filter(({ sequence }) => sequence <= head.sequence);
      await this.thread.ask('take', { sheet, changes: known });
      after = known.at(-1)?.sequence ?? head.sequence;
    }
    if (wantsPast !== null) await this.thread.ask('past', { sheet, past: await readPast(this.sql, sheet, { until: wantsPast }) });
    this.kept.set(sheet, { sequence: head.sequence, usedAt: Date.now() });
  }

  private async drop(sheet: SheetId): Promise<void> {
    if (this.kept.delete(sheet)) await this.thread.ask('close', { sheet });
  }

  /** Writes down what was found, and tells whoever wants to be told at once; false where another process was quicker. */
  private async keep(sheet: SheetId, { head, to, at, found }: Looked): Promise<boolean> {
    const authors = await readAuthors(this.sql, sheet, { after: head.sequence, to });
    const findings = found.flatMap(({ sequence, at: foundAt, findings: some }) =>
      some.map((finding): InsertedFinding => ({
        ...finding,
        sequence,
        at: foundAt,
        author: sequence === null ? null : (authors.get(sequence) ?? null),
      })),
    );
    const isOurs = await this.sql.begin(async (tx) => {
      if (!(await moveFindingHead(tx, sheet, { from: head, to, at }))) return false;
      if (findings.length) await insertFindings(tx, sheet, findings);
      return true;
    });
    if (isOurs && findings.length) await passOn(this.sql, sheet, findings);
    return isOurs;
  }

  /** Opens the sheets whose rules may hang on the clock, so that it is looked at for them too. */
  private async openForClock(nowMs: number): Promise<void> {
    if (nowMs - this.clockAt < CLOCK_MS) return;
    this.clockAt = nowMs;
    for (const sheet of await sheetsByClock(this.sql)) {
      const head = this.busy.has(sheet) ? undefined : await findFindingHead(this.sql, sheet);
      if (head && head.sequence === head.last) await this.open(sheet, head);
    }
  }

  /** The clock has moved on: for sheets whose rules hang on it, and for those that were not used for long. */
  async tick(): Promise<void> {
    await this.openForClock(Date.now()).catch((error: unknown) => console.error('the clock of the findings failed', error));
    for (const [sheet, { usedAt, sequence }] of this.kept) {
      try {
        const head = await findFindingHead(this.sql, sheet);
        if (head && head.sequence === sequence) {
          const found = await this.thread.ask('tick', { sheet, nowMs: Date.now() });
          if (found.length) await this.keep(sheet, { head, to: sequence, at: Date.now(), found });
        }
        if (Date.now() - usedAt > IDLE_MS && !this.busy.has(sheet)) await this.drop(sheet);
      } catch (error) {
        console.error('the clock of the findings failed', error);
      }
    }
  }
}

interface Looked {
  readonly head: FindingHead;
  readonly to: number;
  readonly at: number;
  readonly found: readonly FoundAt[];
}

const shared = globalThis as { auxesisFindings?: FindingsKeeper };

/** The process's keeper of findings. */
export const findingsKeeper = (): FindingsKeeper => (shared.auxesisFindings ??= new FindingsKeeper(database()));
