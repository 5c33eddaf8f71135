import { parentPort } from 'node:worker_threads';
import { evaluateData } from '../../core/rules/evaluate-data';
import { reportEvaluation } from '../../core/rules/evaluate-report';
import type { SheetId } from '../../core/sheet/ids';
import { answerThread } from '../threads/answer-thread';
import type { Asked } from '../threads/thread';
import { PaintedSheet } from './painted-sheet';
import type { PainterQuestions, SaidToPainter, ToldByPainter } from './painter-messages';

// A thread that keeps sheets at work for readers who get no rules, so that looking at them never holds up the server.

/** How often sheets are told what time it is. */
const TICK_MS = 60_000;

const sheets = new Map<SheetId, PaintedSheet>();
const tell = (message: ToldByPainter) => parentPort!.postMessage(message);

setInterval(() => sheets.forEach((sheet) => sheet.tick(Date.now())), TICK_MS);

answerThread<Asked<Pick<PainterQuestions, 'open' | 'paint' | 'judge' | 'records' | 'export' | 'evaluate'>>, SaidToPainter>((asked) => {
  if (asked.kind === 'evaluate') return reportEvaluation(evaluateData(asked.table, asked.rules, asked.options));
  const { sheet } = asked;
  const open = sheets.get(sheet);
  if (asked.kind !== 'open') {
    if (!open) throw new Error('the sheet is not open');
    switch (asked.kind) {
      case 'paint':
        return open.paint(asked.key, asked.of);
      case 'judge':
        return open.judge(asked.of, asked.cell);
      case 'records':
        return open.records(asked.wanted);
      case 'export':
        return open.export(asked.format, asked.options);
    }
  }
  open?.close();
  const opened = new PaintedSheet(asked.packed, Date.now(), {
    repainted: (view, repaint) => tell({ sheet, view, repaint }),
    wantsPast: (until) => tell({ sheet, wantsPast: until }),
  });
  sheets.set(sheet, opened);
  return opened.sequence;
}, take);

function take(said: SaidToPainter): void {
  const open = sheets.get(said.sheet);
  switch (said.kind) {
    case 'receive':
      return open?.receive(said.changes);
    case 'use-past':
      return open?.usePast(said.past);
    case 'drop':
      return open?.drop(said.key);
    case 'close':
      open?.close();
      sheets.delete(said.sheet);
  }
}
