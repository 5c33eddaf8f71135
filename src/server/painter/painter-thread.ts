import { parentPort } from 'node:worker_threads';
import type { SheetId } from '../../core/sheet/ids';
import { PaintedSheet } from './painted-sheet';
import type { FromPainter, ToPainter } from './painter-messages';

// A thread that keeps sheets at work for readers who get no rules, so that looking at them never holds up the server.

/** How often sheets are told what time it is. */
const TICK_MS = 60_000;

const sheets = new Map<SheetId, PaintedSheet>();
const post = (message: FromPainter) => parentPort!.postMessage(message);

setInterval(() => sheets.forEach((sheet) => sheet.tick(Date.now())), TICK_MS);

parentPort!.on('message', (message: ToPainter) => {
  if (!('id' in message)) return take(message);
  try {
    post({ id: message.id, done: answer(message) });
  } catch (error) {
    post({ id: message.id, failed: error instanceof Error ? error.message : String(error) });
  }
});

function answer(message: Extract<ToPainter, { id: number }>): unknown {
  const { sheet } = message;
  const open = sheets.get(sheet);
  if (message.kind !== 'open') {
    if (!open) throw new Error('the sheet is not open');
    return message.kind === 'paint' ? open.paint(message.key, message.of) : open.judge(message.of, message.cell);
  }
  open?.close();
  const opened = new PaintedSheet(message.packed, Date.now(), {
    repainted: (view, repaint) => post({ sheet, view, repaint }),
    wantsPast: (until) => post({ sheet, wantsPast: until }),
  });
  sheets.set(sheet, opened);
  return opened.sequence;
}

function take(message: Exclude<ToPainter, { id: number }>): void {
  const open = sheets.get(message.sheet);
  switch (message.kind) {
    case 'receive':
      return open?.receive(message.changes);
    case 'use-past':
      return open?.usePast(message.past);
    case 'drop':
      return open?.drop(message.key);
    case 'close':
      open?.close();
      sheets.delete(message.sheet);
  }
}
