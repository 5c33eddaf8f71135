import { join } from 'node:path';
import { processWide } from '../process-wide';
import type { SheetId } from '../../core/sheet/ids';
import { database, type Sql } from '../database';
import { liveHub } from '../live/hub';
import { readPast } from '../sheets/read-past';
import { packedAsOf } from '../sheets/sheet-as-of';
import { readChangesAfter } from '../sql/change';
import {
  findFindingHead,
  moveFindingHead,
  sheetsBehind,
  sheetsByClock,
  sheetsDue,
  readQuiet,
  insertFindings,
  keepQuiet,
  readAuthors,
  type FindingHead,
  type InsertedFinding,
} from '../sql/finding';
import { findSnapshot } from '../sql/snapshot';
import { isLeftOut, leaveOut } from '../sheets/left-out';
import { beginWorker } from '../workers/begin-worker';
import { WorkerPool } from '../workers/worker-pool';
import { WorkerError } from '../workers/worker-process';
import type { FindingsRequests, Looked } from './kept-sheet';
import { passOn } from './pass-on';
import { SheetLeases } from './sheet-leases';
import { log } from '../log';

/** Changes looked at together. */
const BATCH = 100;
/** How long a sheet stays open after its last change. */
const IDLE_MS = 120_000;
/** How long changes are gathered before they are looked at; and those of a sheet that had no rules. */
const GATHER_MS = 250;
const QUIET_MS = 2000;
/** How often sheets that nobody uses are looked at for the sake of the clock. */
const CLOCK_MS = 3_600_000;
/** How often the clock is looked at. */
const TICK_MS = 60_000;

/** A sheet that is open in a worker: up to where, and since when nothing has happened. */
interface OpenSheet {
  sequence: number;
  usedAt: number;
}

/** How long each request may take. */
const DEADLINES = { open: 45_000, resume: 30_000, take: 45_000, tick: 30_000, close: 5000 } as const;

/**
 * Keeps the findings of all sheets: follows every change, also while nobody is looking, and records what entered and
 * left each rule. Of several processes one keeps each sheet, by a lease; where that is late, the first to finish a
 * change records it.
 */
export class FindingsKeeper {
  private readonly kept = new Map<SheetId, OpenSheet>();
  /** Sheets that are being looked at; `again` where something has happened meanwhile. */
  private readonly busy = new Map<SheetId, 'once' | 'again'>();
  /** Sheets that are left out for now: they are looked at again every minute. */
  private readonly leftOut = new Set<SheetId>();
  private clockAt = 0;
  private clock: ReturnType<typeof setInterval> | null = null;
  private renewing: ReturnType<typeof setInterval> | null = null;
  private readonly gathering = new Set<SheetId>();
  /** Sheets that had no rules when they were looked at. */
  private readonly quiet = new Set<SheetId>();
  private readonly pool: WorkerPool<FindingsRequests, never>;

  constructor(
    private readonly sql: Sql,
    private readonly leases = new SheetLeases(sql),
  ) {
    const begin = () => beginWorker(join(process.cwd(), 'dist', 'findings.cjs'));
    this.pool = new WorkerPool<FindingsRequests, never>(
      { processes: 1, begin, opening: ['open'], deadlines: DEADLINES },
      {
        event: () => {},
        lost: (sheet) => this.kept.delete(sheet),
        tooCostly: (sheet) =>
          void leaveOut(this.sql, sheet).catch((error: unknown) =>
            log().error({ err: error }, 'a sheet that is too costly could not be noted'),
          ),
      },
    );
  }

  /** Begins: catches up with what happened while no process ran. */
  async start(): Promise<void> {
    await liveHub().followAll(this.lookSoon);
    this.clock ??= setInterval(() => void this.tick(), TICK_MS).unref();
    this.renewing ??= setInterval(() => void this.renew(), this.leases.everyMs).unref();
    for (const sheet of await sheetsBehind(this.sql)) await this.look(sheet);
  }

  /**
   * Looks at a sheet once a little has been gathered: nobody waits for its findings. At one that another process keeps,
   * when its lease ends, in case it has fallen over.
   */
  private readonly lookSoon = (sheet: SheetId): void => {
    if (this.gathering.has(sheet)) return;
    this.gathering.add(sheet);
    const gatherMs = this.quiet.delete(sheet) ? QUIET_MS : GATHER_MS;
    setTimeout(
      () => {
        this.gathering.delete(sheet);
        void this.look(sheet);
      },
      Math.max(gatherMs, this.leases.theirsMs(sheet)),
    );
  };

  /** Keeps what is kept here for longer. What another process has taken is closed. */
  private async renew(): Promise<void> {
    try {
      for (const sheet of await this.leases.renew([...new Set([...this.kept.keys(), ...this.busy.keys()])]))
        await this.drop(sheet);
    } catch (error) {
      log().error({ err: error }, 'leases could not be renewed');
    }
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
      this.kept.delete(sheet);
      if (error instanceof WorkerError && error.failure === 'moved') this.lookSoon(sheet);
      else if (!(error instanceof WorkerError)) log().error({ err: error }, 'looking for findings failed');
    } finally {
      this.busy.delete(sheet);
    }
  }

  /** Looks at the next changes; false where there are none. */
  private async lookOnce(sheet: SheetId): Promise<boolean> {
    const head = await findFindingHead(this.sql, sheet);
    if (!head || head.sequence >= head.last) return false;
    if (!(await this.leases.take(sheet))) {
      this.lookSoon(sheet);
      return false;
    }
    const changes = await readChangesAfter(this.sql, sheet, { after: head.sequence, limit: BATCH });
    const last = changes.at(-1);
    if (!last) return false;
    const isQuiet =
      !head.hasRules && !changes.some(({ change }) => change.operations.some(({ kind }) => kind === 'put-rules'));
    if (isQuiet) {
      // Without rules there is nothing to find, and nothing to open.
      await this.drop(sheet);
      await moveFindingHead(this.sql, sheet, { from: head, to: last.sequence, at: last.at });
      this.quiet.add(sheet);
      return true;
    }
    if (await isLeftOut(this.sql, sheet)) {
      this.leftOut.add(sheet);
      return false;
    }
    await this.open(sheet, head);
    const looked = await this.pool.ask('take', sheet, { changes });
    this.kept.set(sheet, { sequence: last.sequence, usedAt: Date.now() });
    const isOurs = await this.keep(sheet, { head, to: last.sequence, at: last.at, ...looked });
    if (!isOurs) await this.drop(sheet);
    return isOurs;
  }

  private async open(sheet: SheetId, head: FindingHead): Promise<void> {
    if (this.kept.get(sheet)?.sequence === head.sequence) return;
    // A copy that is kept anyhow is at hand at once; taking later changes back is work.
    const copy = await findSnapshot(this.sql, sheet);
    const isOlder = copy !== undefined && copy.sequence <= head.sequence;
    const packed = isOlder ? copy.packed : await packedAsOf(this.sql, sheet, head.sequence);
    const { wantsPast } = await this.pool.ask('open', sheet, { packed, atMs: head.at });
    for (let after = isOlder ? copy.sequence : head.sequence; after < head.sequence;) {
      const known = (await readChangesAfter(this.sql, sheet, { after, limit: BATCH })).filter(
        ({ sequence }) => sequence <= head.sequence,
      );
      await this.pool.ask('take', sheet, { changes: known });
      after = known.at(-1)?.sequence ?? head.sequence;
    }
    const past = wantsPast === null ? null : await readPast(this.sql, sheet, { until: wantsPast });
    await this.pool.ask('resume', sheet, { past, quiet: await readQuiet(this.sql, sheet) });
    this.kept.set(sheet, { sequence: head.sequence, usedAt: Date.now() });
  }

  private async drop(sheet: SheetId): Promise<void> {
    if (!this.kept.delete(sheet)) return;
    await this.pool.ask('close', sheet, {});
    this.pool.forget(sheet);
  }

  /** Records what was found, and notifies followers; false where another process was first. */
  private async keep(sheet: SheetId, { head, to, at, found, quiet }: LookedTo): Promise<boolean> {
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
      if (quiet) await keepQuiet(tx, sheet, quiet);
      if (findings.length) await insertFindings(tx, sheet, findings);
      return true;
    });
    if (isOurs && findings.length) await passOn(this.sql, sheet, findings);
    return isOurs;
  }

  /**
   * Opens the sheets whose rules may be time-dependent once in a while, and at once those of which a quiet rule has
   * waited long enough, so that they are evaluated as time goes by.
   */
  private async openForClock(nowMs: number): Promise<void> {
    const isTime = nowMs - this.clockAt >= CLOCK_MS;
    if (isTime) this.clockAt = nowMs;
    const byClock = isTime ? await sheetsByClock(this.sql) : [];
    for (const sheet of new Set([...byClock, ...(await sheetsDue(this.sql, nowMs))])) {
      const head = this.busy.has(sheet) ? undefined : await findFindingHead(this.sql, sheet);
      if (!head || head.sequence !== head.last || (await isLeftOut(this.sql, sheet))) continue;
      if (await this.leases.take(sheet)) await this.open(sheet, head);
    }
  }

  /**
   * The clock has moved on: evaluates sheets with time-dependent rules, and closes those that were not used for long.
   */
  async tick(): Promise<void> {
    for (const sheet of this.leftOut) {
      this.leftOut.delete(sheet);
      this.lookSoon(sheet);
    }
    await this.openForClock(Date.now()).catch((error: unknown) =>
      log().error({ err: error }, 'the clock of the findings failed'),
    );
    for (const [sheet, { usedAt, sequence }] of this.kept) {
      try {
        const head = await findFindingHead(this.sql, sheet);
        if (head && head.sequence === sequence) {
          const looked = await this.pool.ask('tick', sheet, { nowMs: Date.now() });
          if (looked.found.length || looked.quiet) {
            const isOurs = await this.keep(sheet, { head, to: sequence, at: Date.now(), ...looked });
            if (!isOurs) await this.drop(sheet);
          }
        }
        if (Date.now() - usedAt > IDLE_MS && !this.busy.has(sheet)) await this.drop(sheet);
      } catch (error) {
        log().error({ err: error }, 'the clock of the findings failed');
      }
    }
  }
}

interface LookedTo extends Looked {
  readonly head: FindingHead;
  readonly to: number;
  readonly at: number;
}

/** The process's keeper of findings. */
export const findingsKeeper = (): FindingsKeeper =>
  processWide('findings-keeper', () => new FindingsKeeper(database()));
