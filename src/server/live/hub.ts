import { setImmediate as immediately, setTimeout as pause } from 'node:timers/promises';
import { parseMessage } from '../../protocol/parse-message';
import { processWide } from '../process-wide';
import { itemAt, lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';
import { knownAccess } from '../access/known-access';
import { ACCESS_CHANGE_CHANNEL, concerns, type AccessChange, type Served } from '../access/access-channel';
import { database, lasting, type Sql } from '../database';
import { readChangesAfter } from '../sql/change';
import { FINDING_CHANNEL } from '../sql/finding';
import { keptSheets } from '../sheets/kept-sheets';
import { CHANGE_CHANNEL } from '../sql/change';

import { PRESENCE_CHANNEL, PresenceBook, type Announced } from './presence';
import { log } from '../log';

type Reader = (changes: readonly RecordedChange[]) => void;

/** How often pages that left without a word are looked for. */
const PRUNE_MS = 5000;

/** How long somebody waits for the database to send notices. */
const PATIENCE_MS = 5000;

/** How long changes wait at most because passing on takes long. */
const MOST_REST_MS = 100;

/** Changes read from the log at once. */
const BATCH = 500;

/**
 * One listening connection a process feeds all its readers, so any number of processes can share a database. A notice
 * says only that there is something to read: readers get it from the log, in order, nothing lost or doubled.
 */
export class Hub {
  private readonly feeds = new Map<SheetId, Feed>();
  private listening: Promise<void> | null = null;
  private readonly watchers = new Set<{ readonly served: Served; readonly watcher: () => void }>();
  private readonly findingWatchers = new Set<{ readonly sheet: SheetId; readonly watcher: () => void }>();
  private readonly everywhere = new Set<(sheet: SheetId) => void>();
  readonly presence = new PresenceBook();

  constructor(
    private readonly sql: Sql,
    /** Where notices come from. */
    private readonly notices = sql,
  ) {}

  /** Gives a reader every change after a sequence, those to come included. Returns how to stop. */
  async follow(sheet: SheetId, after: number, reader: Reader): Promise<() => void> {
    await this.listen();
    let feed = this.feeds.get(sheet);
    if (!feed) this.feeds.set(sheet, (feed = new Feed(this.sql, sheet)));
    const own = feed;
    const leave = await own.join(after, reader);
    return () => {
      leave();
      if (own.isEmpty && this.feeds.get(sheet) === own) this.feeds.delete(sheet);
    };
  }

  /** Calls with each sheet that is changed, whether or not anybody follows it. */
  async followAll(changed: (sheet: SheetId) => void): Promise<void> {
    this.everywhere.add(changed);
    await this.listen();
  }

  /** Calls when a sheet has new findings, or may have. Returns how to stop. */
  async watchFindings(sheet: SheetId, watcher: () => void): Promise<() => void> {
    await this.listen();
    const entry = { sheet, watcher };
    this.findingWatchers.add(entry);
    return () => this.findingWatchers.delete(entry);
  }

  private findingsCame(sheet: SheetId | null): void {
    for (const entry of this.findingWatchers) if (sheet === null || entry.sheet === sheet) entry.watcher();
  }

  /** Calls when the access of somebody who is being served may have changed. Returns how to stop. */
  watchAccess(served: Served, watcher: () => void): () => void {
    const entry = { served, watcher };
    this.watchers.add(entry);
    return () => this.watchers.delete(entry);
  }

  /** Without a change, where some may have been missed, everybody is looked at again. */
  private accessChanged(change?: AccessChange): void {
    knownAccess().forget(change);
    for (const { served, watcher } of this.watchers) if (!change || concerns(change, served)) watcher();
  }

  /**
   * Waits until notices come, for some seconds. A lost connection, and one that could not be made at first, is taken up
   * again by the driver; what came in between is read from the log then.
   */
  private async listen(): Promise<void> {
    this.listening ??= this.beginToListen();
    const patience = new AbortController();
    try {
      await Promise.race([
        this.listening,
        pause(PATIENCE_MS, 'late', { signal: patience.signal, ref: false }).then(tooLate),
      ]);
    } finally {
      patience.abort();
    }
  }

  private async beginToListen(): Promise<void> {
    const hear = (channel: string, notice: (payload: string) => void, again: () => void = () => {}): Promise<void> =>
      new Promise((resolve) => {
        this.notices
          .listen(channel, notice, () => {
            again();
            resolve();
          })
          .catch((error: unknown) => log().error({ err: error }, 'listening to the database failed'));
      });
    await Promise.all([
      hear(
        CHANGE_CHANNEL,
        (payload) => {
          const [sheet = '', sequence] = payload.split(' ');
          keptSheets().changed(sheet, Number(sequence));
          this.wake(sheet);
        },
        () => this.feeds.forEach((_, sheet) => this.wake(sheet)),
      ),
      hear(
        FINDING_CHANNEL,
        (sheet) => this.findingsCame(sheet),
        () => this.findingsCame(null),
      ),
      hear(
        ACCESS_CHANGE_CHANNEL,
        (payload) => this.accessChanged(parseMessage<AccessChange>(payload)),
        () => this.accessChanged(),
      ),
      hear(PRESENCE_CHANNEL, (payload) => this.presence.hear(parseMessage<Announced>(payload), Date.now())),
    ]);
    knownAccess().begin();
    setInterval(() => this.presence.prune(Date.now()), PRUNE_MS).unref();
  }

  private wake(sheet: SheetId): void {
    this.everywhere.forEach((changed) => changed(sheet));
    this.feeds.get(sheet)?.wake();
  }
}

function tooLate(): never {
  throw Object.assign(new Error('the database sends no notices yet'), { code: 'CONNECT_TIMEOUT' });
}

/** The tail of a sheet's log, read once for all who follow it. Its work is done in turn. */
class Feed {
  private readonly readers = new Map<Reader, { after: number }>();
  /** Up to where it has been passed on; null before anybody follows. */
  private after: number | null = null;
  private turns: Promise<void> = Promise.resolve();
  private isWoken = false;
  /** When passing on has begun last. */
  private passedAt = 0;

  constructor(
    private readonly sql: Sql,
    private readonly sheet: SheetId,
  ) {}

  get isEmpty(): boolean {
    return this.readers.size === 0;
  }

  /** Lets a reader follow from a place of their own: what others have had already they get first. */
  async join(after: number, reader: Reader): Promise<() => void> {
    const place = { after };
    await this.inTurn(async () => {
      this.after ??= after;
      if (after < this.after) await this.readOn(after, this.after, (changes) => pass(changes, reader, place));
      this.readers.set(reader, place);
      await this.passOn();
    });
    return () => this.readers.delete(reader);
  }

  /** There is something new: several notices while it is read cause one more read. */
  wake(): void {
    if (this.isWoken) return;
    this.isWoken = true;
    void this.inTurn(async () => {
      this.isWoken = false;
      await this.passOn();
      await this.rest();
    });
  }

  /**
   * Waits as long as passing on has taken, its writing included: with very many readers it takes half of the process's
   * time at most, and what comes meanwhile goes together.
   */
  private async rest(): Promise<void> {
    await immediately();
    await pause(Math.min(performance.now() - this.passedAt, MOST_REST_MS), undefined, { ref: false });
  }

  private async passOn(): Promise<void> {
    await this.readOn(this.after!, Infinity, (changes) => {
      this.passedAt = performance.now();
      this.after = lastItem(changes).sequence;
      for (const [reader, place] of this.readers) pass(changes, reader, place);
    });
  }

  private async readOn(from: number, to: number, take: (changes: readonly RecordedChange[]) => void): Promise<void> {
    for (let after = from; after < to;) {
      const changes = await readChangesAfter(this.sql, this.sheet, { after, limit: BATCH });
      if (changes.length) take(changes);
      if (changes.length < BATCH) return;
      after = lastItem(changes).sequence;
    }
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    const done = this.turns.then(work);
    this.turns = done.catch((error: unknown) => log().error({ err: error }, 'reading changes failed'));
    return done;
  }
}

/** Passes on what a reader has not had. All of it is the same list for everybody. */
function pass(changes: readonly RecordedChange[], reader: Reader, place: { after: number }): void {
  const fresh =
    itemAt(changes, 0).sequence > place.after ? changes : changes.filter(({ sequence }) => sequence > place.after);
  if (fresh.length === 0) return;
  place.after = lastItem(fresh).sequence;
  reader(fresh);
}

/** The process's hub. */
export const liveHub = (): Hub => processWide('hub', () => new Hub(database(), lasting()));
