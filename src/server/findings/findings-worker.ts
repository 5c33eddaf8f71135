import { answerRequests } from '../workers/answer-requests';
import { KeptSheet, type FindingsRequests } from './kept-sheet';

// A process that evaluates sheets to see what enters and leaves their rules.

const sheets = new Map<string, KeptSheet>();

function opened(sheet: string): KeptSheet {
  const kept = sheets.get(sheet);
  if (!kept) throw new Error('the sheet is not open');
  return kept;
}

answerRequests<FindingsRequests>({
  open({ sheet, packed, atMs }) {
    const kept = new KeptSheet(packed, atMs);
    sheets.set(sheet, kept);
    return { wantsPast: kept.wantsPast };
  },
  resume({ sheet, past, quiet }) {
    opened(sheet).resume(past, quiet);
    return null;
  },
  take: ({ sheet, changes }) => opened(sheet).take(changes),
  tick: ({ sheet, nowMs }) => opened(sheet).tick(nowMs),
  close({ sheet }) {
    sheets.delete(sheet);
    return null;
  },
});
