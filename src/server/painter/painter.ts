import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { processWide } from '../process-wide';
import type { ExportFormatName } from '../../core/exchange/export-formats';
import type { ExportOptions } from '../../core/exchange/exported-file';
import type { RecordsPage, RecordsWanted } from '../../core/exchange/json/records-page';
import type { SheetId } from '../../core/sheet/ids';
import type { GivenLook, Repaint } from '../../protocol/packed/painted-sheet';
import { database, type Sql } from '../database';
import { liveHub } from '../live/hub';
import { Refusal } from '../refusal';
import { packedForReaders } from '../sheets/read-packed';
import { readPast } from '../sheets/read-past';
import { isLeftOut, leaveOut, TOO_COSTLY } from '../sheets/left-out';
import { beginWorker } from '../workers/begin-worker';
import { WorkerPool } from '../workers/worker-pool';
import { WorkerError } from '../workers/worker-process';
import type { SentRecords } from './evaluate-records';
import type { JudgedCell, PainterEvent, PainterRequests, Refused, WholeFile } from './painter-messages';
import type { ViewOf } from './painted-view';
import { log } from '../log';
import { refusalText } from '../../texts/refusal-text';

/**
 * Repaints of a view that are kept for a reader who connects again: one that is further behind loads the view again.
 */
const KEPT_REPAINTS = 200;
/** How long a sheet stays open in its worker after its last reader has gone. */
const IDLE_MS = 60_000;

type Listener = (repaint: Repaint | 'stale') => void;

/** The state of the view of one kind of readers. */
interface View {
  readonly key: string;
  readonly told: Repaint[];
  readonly listeners: Set<Listener>;
}

/** A sheet that is open in one of the workers. */
interface OpenSheet {
  readonly views: Map<string, View>;
  readonly unfollow: () => void;
  /** Waits until the worker has a change. */
  readonly reach: (sequence: number) => Promise<void>;
  idle: ReturnType<typeof setTimeout> | null;
}

/** Where a reader stands: the view and its revision. */
export interface ViewPlace {
  readonly view: string;
  readonly revision: number;
}

/** How long each request may take. A sheet of millions of cells opens in some seconds on a quiet machine. */
const DEADLINES = {
  open: 45_000,
  export: 90_000,
  paint: 30_000,
  records: 20_000,
  receive: 30_000,
  past: 30_000,
  tick: 30_000,
  tell: 30_000,
  judge: 10_000,
  evaluate: 10_000,
  drop: 5000,
  close: 5000,
  ping: 5000,
} as const;

/** How often sheets get the time. */
const TICK_MS = 60_000;

/** Times that something is asked of a sheet that has moved to another worker meanwhile. */
const MAX_TRIES = 3;

function unlessRefused<T extends object>(answer: T | Refused): T {
  if ('refused' in answer) throw new Refusal('bad-request', answer.refused);
  return answer;
}

/** Serves sheets to readers without rules: keeps them open in worker processes, and passes on repaints. */
class Painter {
  private readonly sheets = new Map<SheetId, Promise<OpenSheet>>();
  private readonly views = new Map<SheetId, OpenSheet['views']>();
  private readonly pool: WorkerPool<PainterRequests, PainterEvent>;
  private evaluations = 0;

  constructor(private readonly sql: Sql) {
    const begin = () => beginWorker(join(process.cwd(), 'dist', 'painter.cjs'));
    this.pool = new WorkerPool<PainterRequests, PainterEvent>(
      {
        processes: Math.max(2, Math.min(4, availableParallelism())),
        begin,
        opening: ['open', 'evaluate', 'ping'],
        deadlines: DEADLINES,
      },
      {
        event: (event) => this.hear(event),
        lost: (sheet) => this.lose(sheet),
        tooCostly: (sheet) => this.noteTooCostly(sheet),
      },
    );
    setTimeout(() => void this.tick(), TICK_MS).unref();
  }

  /** The painted sheet (see painted-sheet.ts), compressed with gzip. Throws a Refusal where there is no such sheet. */
  paint(sheet: SheetId, of: ViewOf): Promise<Uint8Array<ArrayBuffer>> {
    return this.with(sheet, async (open) => {
      const key = keyOf(of);
      const { view, packed } = await this.pool.ask('paint', sheet, { key, of });
      if (!open.views.has(view)) open.views.set(view, { key, told: [], listeners: new Set() });
      return packed;
    });
  }

  /** Sends a reader the repaints from where they stand. Returns how to stop. */
  async follow(
    sheet: SheetId,
    { of, from }: { readonly of: ViewOf; readonly from: ViewPlace },
    listener: Listener,
  ): Promise<() => void> {
    const open = await this.open(sheet);
    const view = open.views.get(from.view);
    const missed = view?.told.filter(({ revision }) => revision > from.revision) ?? [];
    const first = view?.told[0]?.revision ?? 1;
    // The number of a view is no secret that lets anybody in: it must be the one that this reader would be given.
    if (!view || view.key !== keyOf(of) || from.revision < first - 1) {
      listener('stale');
      return () => {};
    }
    missed.forEach(listener);
    view.listeners.add(listener);
    this.rest(sheet, open);
    return () => {
      view.listeners.delete(listener);
      this.rest(sheet, open);
    };
  }

  /** The look that an entry would have; null where entries are not judged while they are typed. */
  judge(sheet: SheetId, of: ViewOf, cell: JudgedCell): Promise<GivenLook | null> {
    return this.with(sheet, () => this.pool.ask('judge', sheet, { of, cell }));
  }

  /**
   * Records with their looks, of the sheet as it is after a change at the earliest. Throws a Refusal where the query is
   * not valid.
   */
  async records(sheet: SheetId, wanted: RecordsWanted, atLeast: number): Promise<RecordsPage> {
    return unlessRefused(
      await this.with(sheet, async (open) => {
        await open.reach(atLeast);
        return this.pool.ask('records', sheet, { wanted });
      }),
    );
  }

  /** The sheet as a file. Throws a Refusal where the format does not hold so much. */
  async export(
    sheet: SheetId,
    how: { readonly format: ExportFormatName; readonly options: ExportOptions },
    atLeast: number,
  ): Promise<WholeFile> {
    return unlessRefused(
      await this.with(sheet, async (open) => {
        await open.reach(atLeast);
        return this.pool.ask('export', sheet, how);
      }),
    );
  }

  /** Whether worker processes start and answer. */
  async isAlive(): Promise<boolean> {
    return (await this.pool.ask('ping', PING, {})) === null;
  }

  /**
   * Evaluates records by rules, in one of the workers; the report as JSON. Throws a Refusal where they cannot be, or
   * where that takes too long.
   */
  async evaluate(sent: SentRecords): Promise<string> {
    const name = `${EVALUATION}${++this.evaluations}`;
    try {
      const evaluated = await this.pool.ask('evaluate', name, sent);
      if ('refused' in evaluated) throw new Refusal('bad-request', evaluated.refused);
      return evaluated.report;
    } catch (error) {
      if (error instanceof WorkerError && error.failure === 'moved') return await this.evaluate(sent);
      throw error instanceof WorkerError ? new Refusal('too-costly', refusalText('theseRulesOverThese')) : error;
    } finally {
      this.pool.forget(name);
    }
  }

  /**
   * Runs work on an open sheet; once more where it has moved to another worker meanwhile. Throws a Refusal where it is
   * too much work.
   */
  private async with<T>(sheet: SheetId, task: (open: OpenSheet) => Promise<T>, tries = MAX_TRIES): Promise<T> {
    try {
      const open = await this.open(sheet);
      this.rest(sheet, open);
      return await task(open);
    } catch (error) {
      if (!(error instanceof WorkerError)) throw error;
      if (error.failure === 'moved' && tries > 1) return this.with(sheet, task, tries - 1);
      throw new Refusal('too-costly', TOO_COSTLY);
    }
  }

  private open(sheet: SheetId): Promise<OpenSheet> {
    let open = this.sheets.get(sheet);
    if (!open) {
      open = this.openNow(sheet);
      this.sheets.set(sheet, open);
      const opening = open;
      open.catch(() => {
        if (this.sheets.get(sheet) === opening) this.sheets.delete(sheet);
      });
    }
    return open;
  }

  private async openNow(sheet: SheetId): Promise<OpenSheet> {
    if (await isLeftOut(this.sql, sheet)) throw new Refusal('too-costly', TOO_COSTLY);
    const packed = await packedForReaders(sheet);
    const views: OpenSheet['views'] = new Map();
    this.views.set(sheet, views);
    const sequence = await this.pool.ask('open', sheet, { packed });
    const reached = new Reached(sequence);
    const unfollow = await liveHub().follow(sheet, sequence, (changes) => {
      void this.send('receive', sheet, { changes });
      reached.now(changes.at(-1)?.sequence ?? 0);
    });
    return { views, unfollow, idle: null, reach: (wanted) => reached.wait(wanted) };
  }

  /** Asks for something that has no answer. What fails is known by the worker's end. */
  private async send<K extends keyof PainterRequests & string>(
    kind: K,
    sheet: SheetId,
    asked: PainterRequests[K]['asked'],
  ): Promise<void> {
    try {
      await this.pool.ask(kind, sheet, asked);
    } catch (error) {
      if (!(error instanceof WorkerError)) log().error({ err: error }, `a sheet could not ${kind}`);
    }
  }

  private hear(event: PainterEvent): void {
    const { sheet } = event;
    if (event.kind === 'repainted') tell(this.views.get(sheet), event.view, event.repaint);
    else if (event.kind === 'wants-to-tell')
      setTimeout(() => this.sheets.has(sheet) && void this.send('tell', sheet, {}), event.afterMs).unref();
    else
      readPast(this.sql, sheet, { until: event.until }).then(
        (past) => void this.send('past', sheet, { past }),
        (error: unknown) => log().error({ err: error }, 'reading the past failed'),
      );
  }

  /** A sheet is in no worker any more: its readers begin again. */
  private lose(sheet: SheetId): void {
    const open = this.sheets.get(sheet);
    this.sheets.delete(sheet);
    this.views.delete(sheet);
    void open?.then(
      ({ views, unfollow, idle }) => {
        if (idle) clearTimeout(idle);
        unfollow();
        for (const view of views.keys()) tell(views, view, 'stale');
      },
      () => {},
    );
  }

  private noteTooCostly(sheet: SheetId): void {
    if (sheet.startsWith(EVALUATION)) return;
    leaveOut(this.sql, sheet).catch((error: unknown) =>
      log().error({ err: error }, 'a sheet that is too costly could not be noted'),
    );
  }

  /** Gives all sheets the time, one after another, so that readers need not wait for very many of them. */
  private async tick(): Promise<void> {
    for (const sheet of this.sheets.keys()) await this.send('tick', sheet, { nowMs: Date.now() });
    setTimeout(() => void this.tick(), TICK_MS).unref();
  }

  /** Closes a sheet some time after nobody follows it, and drops the views that nobody follows. */
  private rest(sheet: SheetId, open: OpenSheet): void {
    if (open.idle) clearTimeout(open.idle);
    open.idle = setTimeout(() => {
      for (const [id, { key, listeners }] of open.views) {
        if (listeners.size > 0) continue;
        open.views.delete(id);
        void this.send('drop', sheet, { key });
      }
      if (open.views.size > 0) return;
      this.sheets.delete(sheet);
      this.views.delete(sheet);
      open.unfollow();
      void this.send('close', sheet, {});
      this.pool.forget(sheet);
    }, IDLE_MS);
    open.idle.unref();
  }
}

/** Begins the names under which data that are no sheet are evaluated; no id of a sheet has such a sign. */
const EVALUATION = 'evaluation:';
/** The name under which a worker is asked whether it is alive. */
const PING = 'evaluation:ping';

/** How long is waited for a change that is to come, at most. */
const REACH_MS = 3000;

/** The sequence that a sheet in a worker has reached. */
class Reached {
  private readonly waiting = new Set<() => void>();

  constructor(private sequence: number) {}

  now(sequence: number): void {
    this.sequence = Math.max(this.sequence, sequence);
    for (const look of [...this.waiting]) look();
  }

  wait(sequence: number): Promise<void> {
    if (this.sequence >= sequence) return Promise.resolve();
    return new Promise((resolve) => {
      const done = () => {
        clearTimeout(timer);
        this.waiting.delete(look);
        resolve();
      };
      const look = () => this.sequence >= sequence && done();
      const timer = setTimeout(done, REACH_MS);
      this.waiting.add(look);
    });
  }
}

/** Passes on what became different in a view. */
function tell(views: OpenSheet['views'] | undefined, id: string, repaint: Repaint | 'stale'): void {
  const view = views?.get(id);
  if (!views || !view) return;
  if (repaint === 'stale') views.delete(id);
  else {
    view.told.push(repaint);
    if (view.told.length > KEPT_REPAINTS) view.told.shift();
  }
  for (const listener of view.listeners) listener(repaint);
}

const keyOf = (of: ViewOf): string =>
  JSON.stringify([of.reader.role, of.reader.own.fields, of.reader.own.rows, of.theme]);

/** The process's painter. */
export const painter = (): Painter => processWide('painter', () => new Painter(database()));
