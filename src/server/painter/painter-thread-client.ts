import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { SheetId } from '../../core/sheet/ids';
import { Thread } from '../threads/thread';
import type { PaintedReports } from './painted-sheet';
import type { PainterQuestions, SaidToPainter, ToldByPainter } from './painter-messages';

/** The server's end of a painter's thread, which passes on what sheets tell to who hears them. */
export class PainterThread extends Thread<PainterQuestions, SaidToPainter, ToldByPainter> {
  private readonly hearers: Map<SheetId, PaintedReports>;

  /** `ended` is called when the thread has fallen over. */
  constructor(ended: () => void) {
    const hearers = new Map<SheetId, PaintedReports>();
    super('painter', () => new Worker(join(process.cwd(), 'dist', 'painter.cjs')), {
      ended,
      told: (message) => {
        const hearer = hearers.get(message.sheet);
        if ('repaint' in message) hearer?.repainted(message.view, message.repaint);
        else hearer?.wantsPast(message.wantsPast);
      },
    });
    this.hearers = hearers;
  }

  override say(message: SaidToPainter): void {
    if (message.kind === 'close') this.hearers.delete(message.sheet);
    super.say(message);
  }

  /** Who hears what a sheet tells. */
  hear(sheet: SheetId, reports: PaintedReports): void {
    this.hearers.set(sheet, reports);
  }
}
