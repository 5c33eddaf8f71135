import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { findSheet } from '../sql/sheet/find-sheet';
import { Refusal } from '../refusal';
import { liveHub } from './hub';

/** A reader that is further behind than this loads the sheet anew instead. */
const TOO_FAR_BEHIND = 5000;
const KEEP_ALIVE_MS = 15_000;

/** Server-sent events of a sheet's changes after a sequence: `changes` with the last one's sequence as its id, or `stale`. */
export async function changeStream(
  sql: Sql,
  { sheet, after, signal }: { sheet: SheetId; after: number; signal: AbortSignal },
): Promise<ReadableStream<Uint8Array>> {
  const head = await findSheet(sql, sheet);
  if (!head) throw new Refusal('no-sheet', 'There is no such sheet');
  const isStale = after > head.head || head.head - after > TOO_FAR_BEHIND;
  const encoder = new TextEncoder();
  let stop = () => {};
  return new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1000\n\n');
      if (isStale) {
        send('event: stale\ndata: {}\n\n');
        return;
      }
      const beat = setInterval(() => send(': still here\n\n'), KEEP_ALIVE_MS);
      const unfollow = await liveHub().follow(sheet, after, (changes) =>
        send(`id: ${changes.at(-1)!.sequence}\nevent: changes\ndata: ${JSON.stringify(changes)}\n\n`),
      );
      stop = () => {
        clearInterval(beat);
        unfollow();
      };
      signal.addEventListener('abort', () => stop());
      if (signal.aborted) stop();
    },
    cancel: () => stop(),
  });
}
