import type { ChildProcess } from 'node:child_process';
import { setPriority } from 'node:os';
import type { Reply } from '../../protocol/channel';
import { log } from '../log';
import { metrics } from '../metrics';

/** Why a request has no answer. */
export type WorkerFailure =
  /** It took longer than its deadline, or its process fell over at it: the process was ended. */
  | 'too-costly'
  /** The process ended at the work of another sheet, or the sheet goes on in another process: asking again is right. */
  | 'moved';

export class WorkerError extends Error {
  constructor(readonly failure: WorkerFailure) {
    super(failure === 'moved' ? 'the sheet has left its worker' : 'the work of the sheet took too long');
  }
}

/** A request for a sheet, on its way. */
export interface Job {
  readonly sheet: string;
  readonly kind: string;
  readonly asked: object;
  readonly deadlineMs: number;
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

interface Reports<Event> {
  readonly event: (event: Event) => void;
  /**
   * The process has ended. `at` is the sheet that it was busy with and for how long; the answer is the failure for that
   * request.
   */
  readonly ended: (at: { readonly sheet: string; readonly forMs: number } | null) => WorkerFailure;
}

type Timer = ReturnType<typeof setTimeout>;

/** Work that takes longer than this gets a lower priority. */
const LONG_MS = 80;
/**
 * Priorities of processes as POSIX has them: the larger, the lower. Workers have a lower priority than the server and
 * the database.
 */
const USUAL_PRIORITY = 10;
const LOW_PRIORITY = 19;

/** Where the system does not let a priority be raised again, a process that was once slow keeps the lower one. */
function setPriorityOf({ pid }: ChildProcess, priority: number): void {
  try {
    if (pid !== undefined) setPriority(pid, priority);
  } catch {
    // It works as well without.
  }
}

/**
 * One worker process, which gets one request at a time: so it is known which sheet it is busy with, and since when. It
 * is started with the first request, and again after it has ended. A request that is not answered by its deadline ends
 * the process.
 */
export class WorkerProcess<Event> {
  /** The sheets that are at home here. */
  readonly sheets = new Set<string>();
  private child: ChildProcess | null = null;
  private readonly queue: Job[] = [];
  private running: {
    readonly job: Job;
    readonly id: number;
    readonly since: number;
    readonly deadline: Timer;
    readonly yielding: Timer;
  } | null = null;
  private lastId = 0;

  constructor(
    private readonly begin: () => ChildProcess,
    private readonly reports: Reports<Event>,
  ) {}

  /** How many requests wait. */
  get waiting(): number {
    return this.queue.length;
  }

  /** The sheet that it is busy with, and for how long, in milliseconds; null while it rests. */
  get busy(): { readonly sheet: string; readonly forMs: number } | null {
    return this.running && { sheet: this.running.job.sheet, forMs: performance.now() - this.running.since };
  }

  add(job: Job): void {
    this.queue.push(job);
    metrics().waiting.inc();
    this.next();
  }

  /** Takes the requests of some sheets out of the queue: they are to be asked elsewhere. */
  release(sheets: ReadonlySet<string>): void {
    const [kept, released]: [Job[], Job[]] = [[], []];
    for (const job of this.queue.splice(0)) (sheets.has(job.sheet) ? released : kept).push(job);
    this.queue.push(...kept);
    for (const sheet of sheets) this.sheets.delete(sheet);
    metrics().waiting.dec(released.length);
    for (const { failed } of released) failed(new WorkerError('moved'));
  }

  /** Sheets with a request that waits. */
  waitingSheets(): Set<string> {
    return new Set(this.queue.map(({ sheet }) => sheet));
  }

  end(): void {
    this.child?.kill('SIGKILL');
  }

  private next(): void {
    if (this.running) return;
    const job = this.queue.shift();
    if (!job) return;
    metrics().waiting.dec();
    const id = ++this.lastId;
    const child = this.started();
    const deadline = setTimeout(() => child.kill('SIGKILL'), job.deadlineMs).unref();
    const yielding = setTimeout(() => setPriorityOf(child, LOW_PRIORITY), LONG_MS).unref();
    this.running = { job, id, since: performance.now(), deadline, yielding };
    child.send({ id, kind: job.kind, sheet: job.sheet, ...job.asked });
  }

  private started(): ChildProcess {
    if (this.child) return this.child;
    const child = this.begin();
    setPriorityOf(child, USUAL_PRIORITY);
    child.on('message', (reply) => this.take(reply as Reply<Event>));
    child.on('error', (error) => {
      log().error({ err: error }, 'a worker process failed');
      // A process that could not be started does not exit.
      if (child.pid === undefined) this.exited(child);
    });
    child.on('exit', () => this.exited(child));
    // The server may end while workers rest; they end with it.
    child.unref();
    child.channel?.unref();
    return (this.child = child);
  }

  private take(reply: Reply<Event>): void {
    if ('event' in reply) return this.reports.event(reply.event);
    if (this.running?.id !== reply.id) return;
    const { job, deadline, yielding, since } = this.running;
    metrics().workSeconds.observe({ kind: job.kind }, (performance.now() - since) / 1000);
    clearTimeout(deadline);
    clearTimeout(yielding);
    if (performance.now() - since >= LONG_MS && this.child) setPriorityOf(this.child, USUAL_PRIORITY);
    this.running = null;
    if ('failed' in reply) job.failed(new Error(reply.failed));
    else job.done(reply.done);
    this.next();
  }

  private exited(child: ChildProcess): void {
    if (this.child !== child) return;
    const { running } = this;
    this.child = null;
    this.running = null;
    if (running) {
      clearTimeout(running.deadline);
      clearTimeout(running.yielding);
    }
    const waiting = this.queue.splice(0);
    metrics().waiting.dec(waiting.length);
    this.sheets.clear();
    const failure = this.reports.ended(
      running && { sheet: running.job.sheet, forMs: performance.now() - running.since },
    );
    running?.job.failed(new WorkerError(failure));
    for (const { failed } of waiting) failed(new WorkerError('moved'));
  }
}
