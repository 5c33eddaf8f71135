import type { SheetId } from '../../core/sheet/ids';
import { answerThread } from '../threads/answer-thread';
import type { Asked } from '../threads/thread';
import { KeptSheet, type FindingsQuestions } from './kept-sheet';

// A thread that keeps sheets at work to see what enters and leaves their rules.

const sheets = new Map<SheetId, KeptSheet>();

answerThread((asked: Asked<Pick<FindingsQuestions, 'open' | 'past' | 'take' | 'tick' | 'close'>>) => {
  if (asked.kind === 'open') {
    const kept = new KeptSheet(asked.packed, asked.atMs);
    sheets.set(asked.sheet, kept);
    return { wantsPast: kept.wantsPast };
  }
  if (asked.kind === 'close') {
    sheets.delete(asked.sheet);
    return null;
  }
  const kept = sheets.get(asked.sheet);
  if (!kept) throw new Error('the sheet is not open');
  if (asked.kind === 'take') return kept.take(asked.changes);
  if (asked.kind === 'tick') return kept.tick(asked.nowMs);
  kept.usePast(asked.past);
  return null;
});
