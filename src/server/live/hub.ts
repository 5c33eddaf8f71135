import type { SheetId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';
import { ACCESS_CHANGE_CHANNEL } from '../access/access-channel';
import { database, type Sql } from '../database';
import { readChangesAfter } from '../sql/change/read-changes-after';
import { CHANGE_CHANNEL } from '../sheets/take-change';

import { PRESENCE_CHANNEL, PresenceBook, type Announced } from './presence';

type Reader = (changes: readonly RecordedChange[]) => void;

/** How often those who have gone without a word are looked for. */
const PRUNE_MS = 5000;

/** Changes read from the log at once. */
const BATCH = 500;

/**
 * One listening connection a process feeds all its readers, so any number of processes can share a database. What a
 * notice says is only that there is something to read: readers get it from the log, in order, nothing lost or doubled.
 */
class Hub {
  private readonly feeds = new Map<SheetId, Map<Reader, Feed>>();
  private listening: Promise<unknown> | null = null;
  private readonly watchers = new Set<() => void>();
  private readonly everywhere = new Set<(sheet: SheetId) => void>();
  readonly presence = new PresenceBook();

  constructor(private readonly sql: Sql) {}

  /** Gives a reader every change after a sequence, those to come included. Returns how to stop. */
  async follow(sheet: SheetId, after: number, reader: Reader): Promise<() => void> {
    await this.listen();
    let feeds = this.feeds.get(sheet);
    if (!feeds) this.feeds.set(sheet, (feeds = new Map<Reader, Feed>()));
    const feed = new Feed(this.sql, { sheet, after, reader });
    feeds.set(reader, feed);
    await feed.wake();
    const own = feeds;
    return () => {
      own.delete(reader);
      if (own.size === 0 && this.feeds.get(sheet) === own) this.feeds.delete(sheet);
    };
  }

  /** Calls with each sheet that is changed, whoever follows it. */
  async followAll(changed: (sheet: SheetId) => void): Promise<void> {
    this.everywhere.add(changed);
    await this.listen();
  }

  /** Calls when somebody may do less or more than before. Returns how to stop. */
  watchAccess(watcher: () => void): () => void {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }

  /** A lost connection is taken up again by the driver; what came in between is read from the log then. */
  private listen(): Promise<unknown> {
    const lookAgain = () => this.watchers.forEach((watcher) => watcher());
    return (this.listening ??= Promise.all([
      this.sql.listen(
        CHANGE_CHANNEL,
        (payload) => this.wake(payload.split(' ')[0] as SheetId),
        () => this.feeds.forEach((_, sheet) => this.wake(sheet)),
      ),
      this.sql.listen(ACCESS_CHANGE_CHANNEL, lookAgain, lookAgain),
      this.sql.listen(PRESENCE_CHANNEL, (payload) => this.presence.hear(JSON.parse(payload) as Announced, Date.now())),
    ]).then(() => setInterval(() => this.presence.prune(Date.now()), PRUNE_MS).unref()));
  }

  private wake(sheet: SheetId): void {
    this.everywhere.forEach((changed) => changed(sheet));
    this.feeds.get(sheet)?.forEach((feed) => void feed.wake());
  }
}

/** One reader's place in a sheet's log. Wakes while it reads are remembered, so that none is lost. */
class Feed {
  private state: 'resting' | 'reading' | 'reading-again' = 'resting';
  private after: number;

  constructor(
    private readonly sql: Sql,
    private readonly of: { sheet: SheetId; after: number; reader: Reader },
  ) {
    this.after = of.after;
  }

  async wake(): Promise<void> {
    if (this.state !== 'resting') {
      this.state = 'reading-again';
      return;
    }
    do {
      this.state = 'reading';
      try {
        await this.readOn();
      } catch (error) {
        console.error('reading changes failed', error);
      }
    } while ((this.state as string) === 'reading-again');
    this.state = 'resting';
  }

  private async readOn(): Promise<void> {
    for (let full = true; full;) {
      const changes = await readChangesAfter(this.sql, this.of.sheet, { after: this.after, limit: BATCH });
      if (changes.length) {
        this.after = changes.at(-1)!.sequence;
        this.of.reader(changes);
      }
      full = changes.length === BATCH;
    }
  }
}

const shared = globalThis as { auxesisHub?: Hub };

/** The process's hub. */
export const liveHub = (): Hub => (shared.auxesisHub ??= new Hub(database()));
