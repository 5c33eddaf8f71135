import { answerRequests, sendEvent } from '../workers/answer-requests';
import type { WorkerRequest } from '../workers/worker-messages';
import { evaluateRecords } from './evaluate-records';
import { PaintedSheet } from './painted-sheet';
import type { PainterEvent, PainterRequests } from './painter-messages';

// A process that evaluates sheets for readers without rules, so that reader views never hold up the server. It works
// only when it is asked: so the server knows which sheet it is busy with.

const sheets = new Map<string, PaintedSheet>();

type Kinds = Pick<
  PainterRequests,
  | 'open'
  | 'paint'
  | 'judge'
  | 'records'
  | 'export'
  | 'evaluate'
  | 'receive'
  | 'past'
  | 'tick'
  | 'tell'
  | 'drop'
  | 'close'
  | 'ping'
>;

answerRequests<Kinds>((request) => {
  if (request.kind === 'ping') return null;
  if (request.kind === 'evaluate') return evaluateRecords(request);
  if (request.kind === 'open') return open(request.sheet, request.packed);
  const sheet = sheets.get(request.sheet);
  if (request.kind === 'close') {
    sheets.delete(request.sheet);
    return null;
  }
  if (!sheet) throw new Error('the sheet is not open');
  return answer(sheet, request) ?? null;
});

function open(sheet: string, packed: Uint8Array): number {
  const tell = (event: PainterEvent): void => sendEvent(event);
  const opened = new PaintedSheet(packed, Date.now(), {
    repainted: (view, repaint) => tell({ kind: 'repainted', sheet, view, repaint }),
    wantsPast: (until) => tell({ kind: 'wants-past', sheet, until }),
    wantsToTell: (afterMs) => tell({ kind: 'wants-to-tell', sheet, afterMs }),
  });
  sheets.set(sheet, opened);
  return opened.sequence;
}

function answer(
  sheet: PaintedSheet,
  request: Exclude<WorkerRequest<Kinds>, { kind: 'open' | 'close' | 'evaluate' | 'ping' }>,
): unknown {
  switch (request.kind) {
    case 'paint':
      return sheet.paint(request.key, request.of);
    case 'judge':
      return sheet.judge(request.of, request.cell);
    case 'records':
      return sheet.records(request.wanted);
    case 'export':
      return sheet.export(request.format, request.options);
    case 'receive':
      return sheet.receive(request.changes);
    case 'past':
      return sheet.usePast(request.past);
    case 'tick':
      return sheet.tick(request.nowMs);
    case 'tell':
      return sheet.tell();
    case 'drop':
      return sheet.drop(request.key);
  }
}
