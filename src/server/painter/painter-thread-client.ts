import type { Worker } from 'node:worker_threads';
import type { SheetId } from '../../core/sheet/ids';
import type { PaintedReports } from './painted-sheet';
import type { FromPainter, PainterAnswers, ToPainter } from './painter-messages';

interface Waiting {
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

type Asked<K extends keyof PainterAnswers> = Omit<Extract<ToPainter, { kind: K }>, 'id' | 'kind'>;

/** The server's end of a painter's thread: asks, and hears what sheets tell. */
export class PainterThread {
  private readonly waiting = new Map<number, Waiting>();
  private readonly hearers = new Map<SheetId, PaintedReports>();
  private lastId = 0;

  /** `ended` is called when the thread has fallen over. */
  constructor(
    private readonly worker: Worker,
    ended: () => void,
  ) {
    worker.on('message', (message: FromPainter) => this.take(message));
    worker.on('error', (error) => console.error('a painter fell over', error));
    worker.on('exit', () => {
      for (const { failed } of this.waiting.values()) failed(new Error('the painter fell over'));
      this.waiting.clear();
      ended();
    });
    // The process may end while it rests.
    worker.unref();
  }

  ask<K extends keyof PainterAnswers>(kind: K, asked: Asked<K>): Promise<PainterAnswers[K]> {
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { done: resolve as (answer: unknown) => void, failed: reject });
      this.worker.postMessage({ kind, id, ...asked });
    });
  }

  tell(message: Exclude<ToPainter, { id: number }>): void {
    if (message.kind === 'close') this.hearers.delete(message.sheet);
    this.worker.postMessage(message);
  }

  /** Who hears what a sheet tells. */
  hear(sheet: SheetId, reports: PaintedReports): void {
    this.hearers.set(sheet, reports);
  }

  private take(message: FromPainter): void {
    if ('repaint' in message) return this.hearers.get(message.sheet)?.repainted(message.view, message.repaint);
    if ('wantsPast' in message) return this.hearers.get(message.sheet)?.wantsPast(message.wantsPast);
    const waiting = this.waiting.get(message.id);
    this.waiting.delete(message.id);
    if ('failed' in message) waiting?.failed(new Error(message.failed));
    else waiting?.done(message.done);
  }
}
