import { answerRequests } from '../workers/answer-requests';
import { KeptSheet, type FindingsRequests } from './kept-sheet';

// A process that evaluates sheets to see what enters and leaves their rules.

const sheets = new Map<string, KeptSheet>();

answerRequests<Pick<FindingsRequests, 'open' | 'past' | 'take' | 'tick' | 'close'>>((request) => {
  if (request.kind === 'open') {
    const kept = new KeptSheet(request.packed, request.atMs);
    sheets.set(request.sheet, kept);
    return { wantsPast: kept.wantsPast };
  }
  if (request.kind === 'close') {
    sheets.delete(request.sheet);
    return null;
  }
  const kept = sheets.get(request.sheet);
  if (!kept) throw new Error('the sheet is not open');
  if (request.kind === 'take') return kept.take(request.changes);
  if (request.kind === 'tick') return kept.tick(request.nowMs);
  kept.usePast(request.past);
  return null;
});
