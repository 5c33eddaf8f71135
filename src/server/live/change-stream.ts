import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';
import type { Served } from '../access/access-channel';
import type { Sql } from '../database';
import { Refusal } from '../refusal';
import { findSheet } from '../sql/sheet';
import { eventStream } from './event-stream';
import { liveHub } from './hub';
import { leave } from './presence';
import { refusalText } from '../../texts/refusal-text';

/** A reader that is further behind than this loads the sheet again. */
const TOO_FAR_BEHIND = 5000;

/** Everybody who follows a sheet gets the same list: it is spelled out once. */
const spelled = new WeakMap<readonly RecordedChange[], string>();

function jsonOf(changes: readonly RecordedChange[]): string {
  const known = spelled.get(changes);
  if (known !== undefined) return known;
  const json = JSON.stringify(changes);
  spelled.set(changes, json);
  return json;
}

interface ChangeStreamQuery {
  readonly sheet: SheetId;
  readonly after: number;
  /** The presence key of the page: it has left when the stream ends. */
  readonly page?: string | undefined;
  readonly signal: AbortSignal;
  readonly served: Served;
  readonly mayRead: () => Promise<boolean>;
}

/**
 * Server-sent events of a sheet's changes after a sequence: `changes` with the last one's sequence as its id, or
 * `stale`.
 */
export async function changeStream(
  sql: Sql,
  { sheet, after, page, signal, served, mayRead }: ChangeStreamQuery,
): Promise<ReadableStream<Uint8Array>> {
  const head = await findSheet(sql, sheet);
  if (!head) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const isStale = after > head.head || head.head - after > TOO_FAR_BEHIND;
  return eventStream({
    served,
    signal,
    mayRead,
    async start(send) {
      if (isStale) {
        send({ event: 'stale', data: {} });
        return () => {};
      }
      const unwatch = liveHub().presence.watch(sheet, (present) => send({ event: 'presence', data: present }));
      const unfollow = await liveHub().follow(sheet, after, (changes) =>
        send({ event: 'changes', data: changes, json: jsonOf(changes), id: String(lastItem(changes).sequence) }),
      );
      return () => {
        unwatch();
        unfollow();
        if (page !== undefined) leave(sql, sheet, page);
      };
    },
  });
}
