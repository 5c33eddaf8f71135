import { answerRequests, sendEvent } from '../workers/answer-requests';
import { evaluateRecords } from './evaluate-records';
import { PaintedSheet } from './painted-sheet';
import type { PainterEvent, PainterRequests } from './painter-messages';

// A process that evaluates sheets for readers without rules, so that reader views never hold up the server. It works
// only when it is asked: so the server knows which sheet it is busy with.

const sheets = new Map<string, PaintedSheet>();

function opened(sheet: string): PaintedSheet {
  const found = sheets.get(sheet);
  if (!found) throw new Error('the sheet is not open');
  return found;
}

answerRequests<PainterRequests>({
  open({ sheet, packed }) {
    const tell = (event: PainterEvent): void => sendEvent(event);
    const made = new PaintedSheet(packed, Date.now(), {
      repainted: (view, repaint) => tell({ kind: 'repainted', sheet, view, repaint }),
      wantsPast: (until) => tell({ kind: 'wants-past', sheet, until }),
      wantsToTell: (afterMs) => tell({ kind: 'wants-to-tell', sheet, afterMs }),
    });
    sheets.set(sheet, made);
    return made.sequence;
  },
  paint: ({ sheet, key, of }) => opened(sheet).paint(key, of),
  judge: ({ sheet, of, cell }) => opened(sheet).judge(of, cell),
  records: ({ sheet, wanted }) => opened(sheet).records(wanted),
  export: ({ sheet, format, options }) => opened(sheet).export(format, options),
  evaluate: (asked) => evaluateRecords(asked),
  receive({ sheet, changes }) {
    opened(sheet).receive(changes);
    return null;
  },
  past({ sheet, past }) {
    opened(sheet).usePast(past);
    return null;
  },
  tick({ sheet, nowMs }) {
    opened(sheet).tick(nowMs);
    return null;
  },
  tell({ sheet }) {
    opened(sheet).tell();
    return null;
  },
  drop({ sheet, key }) {
    opened(sheet).drop(key);
    return null;
  },
  close({ sheet }) {
    sheets.delete(sheet);
    return null;
  },
  ping: () => null,
});
