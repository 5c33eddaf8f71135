import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';
import type { Served } from '../access/access-channel';
import type { Sql } from '../database';
import { Refusal } from '../refusal';
import { hasLogAfter } from '../sql/log-start';
import { findSheet } from '../sql/sheet';
import { eventStream, spellEvent, type EventStream } from './event-stream';
import { liveHub } from './hub';
import { leave } from './presence';
import { refusalText } from '../../texts/refusal-text';

/** A reader that is further behind than this loads the sheet again. */
const TOO_FAR_BEHIND = 5000;

/** Everybody who follows a sheet gets the same list: it is spelled out once. */
const spelled = new WeakMap<readonly RecordedChange[], Uint8Array>();

function spellChanges(changes: readonly RecordedChange[]): Uint8Array {
  const known = spelled.get(changes);
  if (known) return known;
  const bytes = spellEvent({ event: 'changes', data: changes, id: String(lastItem(changes).sequence) });
  spelled.set(changes, bytes);
  return bytes;
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
): Promise<EventStream> {
  const head = await findSheet(sql, sheet);
  if (!head) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const behind = head.head - after;
  const isStale = behind < 0 || behind > TOO_FAR_BEHIND || (behind > 0 && !(await hasLogAfter(sql, sheet, after)));
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
      const unfollow = await liveHub().follow(sheet, after, (changes) => send(spellChanges(changes)));
      return () => {
        unwatch();
        unfollow();
        if (page !== undefined) leave(sql, sheet, page);
      };
    },
  });
}
