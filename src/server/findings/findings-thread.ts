import { parentPort } from 'node:worker_threads';
import type { SheetId } from '../../core/sheet/ids';
import { KeptSheet, type KeptMessages } from './kept-sheet';

// A thread that keeps sheets at work to see what enters and leaves their rules.

type Asked = { [K in keyof KeptMessages]: { readonly kind: K; readonly id: number } & KeptMessages[K] }[keyof KeptMessages];

const sheets = new Map<SheetId, KeptSheet>();

parentPort!.on('message', (asked: Asked) => {
  try {
    parentPort!.postMessage({ id: asked.id, done: answer(asked) });
  } catch (error) {
    parentPort!.postMessage({ id: asked.id, failed: error instanceof Error ? error.message : String(error) });
  }
});

function answer(asked: Asked): unknown {
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
}
