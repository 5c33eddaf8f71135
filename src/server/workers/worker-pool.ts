import type { ChildProcess } from 'node:child_process';
import { itemAt } from '../../core/values/item-at';
import { metrics } from '../metrics';
import { Refusal } from '../refusal';
import type { WorkerRequests } from './worker-messages';
import { WorkerError, WorkerProcess } from './worker-process';
import { refusalText } from '../../texts/refusal-text';

/**
 * A process that has been busy with one sheet for this long is left to it: others that wait there go to another
 * process.
 */
const PATIENCE_MS = 200;
/**
 * Work that ends a process after so long is to blame at once; what ends one sooner, where it does so twice within the
 * other time.
 */
const SUSPICIOUS_MS = 3000;
const REMEMBERED_MS = 120_000;
/** How long a request may take of a kind that has no deadline of its own. */
const LAST_DEADLINE_MS = 60_000;
/** Requests that may wait for one process. */
const MAX_WAITING = 500;

interface PoolReports<Event> {
  readonly event: (event: Event) => void;
  /** A sheet is in no process any more: it has to be opened again. */
  readonly lost: (sheet: string) => void;
  /** The work of a sheet took too long, or more memory than a process may have. */
  readonly tooCostly: (sheet: string) => void;
}

export interface PoolOptions {
  /** Processes that work side by side as a rule; up to twice as many where some are held up. */
  readonly processes: number;
  readonly begin: () => ChildProcess;
  /** The kinds of request with which the work for a sheet begins: others are for sheets that are open already. */
  readonly opening: readonly string[];
  /** How long each kind of request may take, in milliseconds. */
  readonly deadlines: Readonly<Record<string, number>>;
}

/**
 * Worker processes that evaluate sheets. Each sheet has its home in one of them, and its requests are answered in
 * order. No sheet waits long for another: where a process is held up, the sheets that wait for it move on.
 */
export class WorkerPool<Q extends WorkerRequests, Event> {
  private readonly processes: WorkerProcess<Event>[] = [];
  private readonly homes = new Map<string, WorkerProcess<Event>>();
  /** When a worker last ended while it was busy with a sheet. */
  private readonly suspects = new Map<string, number>();
  /** Processes that a timer is set for, see `watch`. */
  private readonly watched = new Set<WorkerProcess<Event>>();

  constructor(
    private readonly options: PoolOptions,
    private readonly reports: PoolReports<Event>,
  ) {}

  /**
   * Asks something of a sheet. Rejects with a WorkerError where the worker has ended or the sheet has moved, with a
   * Refusal where too many wait.
   */
  ask<K extends keyof Q & string>(kind: K, sheet: string, asked: Q[K]['asked']): Promise<Q[K]['answer']> {
    if (!this.homes.has(sheet) && !this.options.opening.includes(kind)) return Promise.reject(new WorkerError('moved'));
    const process = this.homeOf(sheet);
    if (process.waiting >= MAX_WAITING) return Promise.reject(new Refusal('too-busy', refusalText('serverHasTooMuch')));
    return new Promise((resolve, reject) => {
      const deadlineMs = this.options.deadlines[kind] ?? LAST_DEADLINE_MS;
      process.add({ sheet, kind, asked, deadlineMs, done: resolve as (answer: unknown) => void, failed: reject });
      this.watch(process);
    });
  }

  /** Forgets where a sheet is at home: to be called after it was closed there. */
  forget(sheet: string): void {
    this.homes.get(sheet)?.sheets.delete(sheet);
    this.homes.delete(sheet);
  }

  end(): void {
    for (const process of this.processes) process.end();
  }

  private homeOf(sheet: string): WorkerProcess<Event> {
    const known = this.homes.get(sheet);
    if (known) return known;
    const process = this.freest();
    process.sheets.add(sheet);
    this.homes.set(sheet, process);
    return process;
  }

  /** The process with the fewest sheets of those that are not held up; a new one where there may be one. */
  private freest(): WorkerProcess<Event> {
    const free = this.processes.filter((process) => !isHeldUp(process));
    const { processes } = this.options;
    if (free.length < processes && this.processes.length < 2 * processes) return this.another();
    return itemAt(
      (free.length ? free : this.processes).toSorted((a, b) => a.sheets.size - b.sheets.size),
      0,
    );
  }

  private another(): WorkerProcess<Event> {
    const process: WorkerProcess<Event> = new WorkerProcess(this.options.begin, {
      event: this.reports.event,
      ended: (at) => {
        for (const [sheet, home] of this.homes) {
          if (home !== process) continue;
          this.homes.delete(sheet);
          this.reports.lost(sheet);
        }
        return at !== null && this.isToBlame(at) ? 'too-costly' : 'moved';
      },
    });
    this.processes.push(process);
    return process;
  }

  /**
   * Whether a sheet whose worker has ended is too costly: the worker was busy with it for long, or ended at it before.
   * Anything may end a process once; a sheet that does so by itself does it again.
   */
  private isToBlame({ sheet, forMs }: { readonly sheet: string; readonly forMs: number }): boolean {
    const before = this.suspects.get(sheet) ?? -Infinity;
    this.suspects.set(sheet, performance.now());
    if (forMs < SUSPICIOUS_MS && performance.now() - before > REMEMBERED_MS) return false;
    this.suspects.delete(sheet);
    metrics().tooCostly.inc();
    this.reports.tooCostly(sheet);
    return true;
  }

  /**
   * While sheets wait in a process for another one: looks again when the patience with that one is over; then all that
   * wait there move on.
   */
  private watch(process: WorkerProcess<Event>): void {
    const { busy } = process;
    if (!busy || this.watched.has(process) || this.waitingForOther(process).size === 0) return;
    this.watched.add(process);
    const look = (): void => {
      this.watched.delete(process);
      if (isHeldUp(process)) this.relieve(process);
      this.watch(process);
    };
    setTimeout(look, Math.max(0, PATIENCE_MS - busy.forMs) + 10);
  }

  /** The sheets with their home in a process that wait there while it is busy with another. */
  private waitingForOther(process: WorkerProcess<Event>): Set<string> {
    const isAtHome = (sheet: string): boolean => sheet !== process.busy?.sheet && this.homes.get(sheet) === process;
    return new Set([...process.waitingSheets()].filter(isAtHome));
  }

  private relieve(process: WorkerProcess<Event>): void {
    const moving = this.waitingForOther(process);
    for (const sheet of moving) {
      this.homes.delete(sheet);
      this.reports.lost(sheet);
    }
    process.release(moving);
    // Its state of them is released once it gets there.
    const deadlineMs = this.options.deadlines.close ?? LAST_DEADLINE_MS;
    for (const sheet of moving)
      process.add({ sheet, kind: 'close', asked: {}, deadlineMs, done: () => {}, failed: () => {} });
  }
}

const isHeldUp = (process: { readonly busy: { readonly forMs: number } | null }): boolean =>
  (process.busy?.forMs ?? 0) >= PATIENCE_MS;
