import { availableParallelism } from 'node:os';
import type { ExportFormatName, ExportOptions } from '../../core/exchange/export-formats';
import type { RecordsPage, RecordsWanted } from '../../core/exchange/json/records-page';
import type { EvaluateReport } from '../../core/rules/evaluate-report';
import type { SheetId } from '../../core/sheet/ids';
import type { GivenLook, Repaint } from '../../protocol/painted-sheet';
import { database, type Sql } from '../database';
import { liveHub } from '../live/hub';
import { Refusal } from '../refusal';
import { readPacked } from '../sheets/read-packed';
import { readPast } from '../sheets/read-past';
import type { JudgedCell, PainterQuestions } from './painter-messages';
import { PainterThread } from './painter-thread-client';
import type { ViewOf } from './painted-view';

/** Repaints of a view that can be asked for again: a reader that is further behind begins anew. */
const KEPT_REPAINTS = 200;
/** How long a sheet stays at work after its last reader has gone. */
const IDLE_MS = 60_000;

type Listener = (repaint: Repaint | 'stale') => void;

/** What readers of one kind are told of a sheet. */
interface View {
  readonly key: string;
  readonly told: Repaint[];
  readonly listeners: Set<Listener>;
}

/** A sheet at work in one of the threads. */
interface OpenSheet {
  readonly thread: PainterThread;
  readonly views: Map<string, View>;
  readonly unfollow: () => void;
  /** Waits until the thread has been told of a change. */
  readonly reach: (sequence: number) => Promise<void>;
  idle: ReturnType<typeof setTimeout> | null;
}

/** Where a reader stands: the view they were given, and how far they were told of it. */
export interface ViewPlace {
  readonly view: string;
  readonly revision: number;
}

/** Shows sheets to readers who get no rules: keeps them at work in threads, and passes on what becomes different. */
class Painter {
  private readonly threads: PainterThread[] = [];
  private readonly sheets = new Map<SheetId, Promise<OpenSheet>>();

  constructor(private readonly sql: Sql) {}

  /** The painted sheet (see painted-sheet.ts), compressed with gzip. Throws a Refusal where there is no such sheet. */
  async paint(sheet: SheetId, of: ViewOf): Promise<Uint8Array> {
    const open = await this.open(sheet);
    const key = keyOf(of);
    const { view, packed } = await open.thread.ask('paint', { sheet, key, of });
    if (!open.views.has(view)) open.views.set(view, { key, told: [], listeners: new Set() });
    this.rest(sheet, open);
    return packed;
  }

  /** Tells a reader what becomes different from where they stand. Returns how to stop. */
  async follow(sheet: SheetId, { of, from }: { readonly of: ViewOf; readonly from: ViewPlace }, listener: Listener): Promise<() => void> {
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
  async judge(sheet: SheetId, of: ViewOf, cell: JudgedCell): Promise<GivenLook | null> {
    const open = await this.open(sheet);
    this.rest(sheet, open);
    return open.thread.ask('judge', { sheet, of, cell });
  }

  /** Records with their looks, of the sheet as it is after a change at the earliest. Throws a Refusal where what is wanted is none. */
  async records(sheet: SheetId, wanted: RecordsWanted, atLeast: number): Promise<RecordsPage> {
    const open = await this.open(sheet);
    await open.reach(atLeast);
    this.rest(sheet, open);
    const page = await open.thread.ask('records', { sheet, wanted });
    if ('refused' in page) throw new Refusal('bad-request', page.refused);
    return page;
  }

  /** The sheet as a file. */
  async export(sheet: SheetId, how: { readonly format: ExportFormatName; readonly options: ExportOptions }, atLeast: number) {
    const open = await this.open(sheet);
    await open.reach(atLeast);
    this.rest(sheet, open);
    return open.thread.ask('export', { sheet, ...how });
  }

  /** Judges data by rules, in one of the threads. */
  evaluate(asked: PainterQuestions['evaluate']['asked']): Promise<EvaluateReport> {
    return this.threadOf('').ask('evaluate', asked);
  }

  private open(sheet: SheetId): Promise<OpenSheet> {
    let open = this.sheets.get(sheet);
    if (!open) {
      open = this.openNow(sheet);
      this.sheets.set(sheet, open);
      open.catch(() => this.sheets.delete(sheet));
    }
    return open;
  }

  private async openNow(sheet: SheetId): Promise<OpenSheet> {
    const packed = await readPacked(this.sql, sheet);
    const thread = this.threadOf(sheet);
    const views: OpenSheet['views'] = new Map();
    thread.hear(sheet, {
      repainted: (id, repaint) => tell(views, id, repaint),
      wantsPast: (until) =>
        void readPast(this.sql, sheet, { until }).then(
          (past) => thread.say({ kind: 'use-past', sheet, past }),
          (error: unknown) => console.error('reading the past failed', error),
        ),
    });
    const sequence = await thread.ask('open', { sheet, packed });
    const reached = new Reached(sequence);
    const unfollow = await liveHub().follow(sheet, sequence, (changes) => {
      thread.say({ kind: 'receive', sheet, changes });
      reached.now(changes.at(-1)?.sequence ?? 0);
    });
    return { thread, views, unfollow, idle: null, reach: (wanted) => reached.wait(wanted) };
  }

  /** Closes a sheet some time after nobody follows it, and drops the views that nobody follows. */
  private rest(sheet: SheetId, open: OpenSheet): void {
    if (open.idle) clearTimeout(open.idle);
    open.idle = setTimeout(() => {
      for (const [id, { key, listeners }] of open.views) {
        if (listeners.size > 0) continue;
        open.views.delete(id);
        open.thread.say({ kind: 'drop', sheet, key });
      }
      if (open.views.size > 0) return;
      this.sheets.delete(sheet);
      open.unfollow();
      open.thread.say({ kind: 'close', sheet });
    }, IDLE_MS);
    open.idle.unref();
  }

  /** Each sheet has its thread; another thread goes to work where there is a processor for it. */
  private threadOf(sheet: SheetId): PainterThread {
    const most = Math.max(1, Math.min(4, availableParallelism() - 1));
    const at = [...sheet].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 9973, 7) % most;
    const known = this.threads[at];
    if (known) return known;
    const thread = new PainterThread(() => {
      // What was at work there is gone: readers begin anew, and it with them.
      for (const [id, open] of this.sheets)
        void open.then((one) => {
          if (one.thread !== thread) return;
          this.sheets.delete(id);
          one.unfollow();
          for (const view of one.views.keys()) tell(one.views, view, 'stale');
        });
    });
    this.threads[at] = thread;
    return thread;
  }
}

/** How long is waited for a change that is to come, at most. */
const REACH_MS = 3000;

/** How far a sheet has been told of its log. */
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
function tell(views: OpenSheet['views'], id: string, repaint: Repaint | 'stale'): void {
  const view = views.get(id);
  if (!view) return;
  if (repaint === 'stale') views.delete(id);
  else {
    view.told.push(repaint);
    if (view.told.length > KEPT_REPAINTS) view.told.shift();
  }
  for (const listener of view.listeners) listener(repaint);
}

const keyOf = (of: ViewOf): string => JSON.stringify([of.reader.role, of.reader.own.fields, of.reader.own.rows, of.theme]);

const shared = globalThis as { auxesisPainter?: Painter };

/** The process's painter. */
export const painter = (): Painter => (shared.auxesisPainter ??= new Painter(database()));
