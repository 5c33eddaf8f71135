import type { Change } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { Event, LinkState, PresentPerson, Selection } from '../../protocol/engine-messages';
import type { RecordedChange, SentChange } from '../../protocol/recorded-change';
import { LiveLink } from './live-link';
import { lostCell } from './lost-cell';
import { Others } from './others';
import { OwnEntries } from './own-entries';
import type { Replica } from '../replica/replica';
import { WaitingStore } from './waiting-store';

/** News for the page since the last report. */
export type News = 'frame' | 'window' | 'legend' | 'undo' | 'selection' | 'others' | 'link';

/**
 * While no more than this wait, changes of others are taken in at once; with more, after as many milliseconds as there
 * are more, at most.
 */
const FEW_WAITING = 20;
const MAX_REST_MS = 1000;

/** The engine, to the connection. */
export interface ConnectionHost {
  /** Does something in its turn. */
  take(work: () => void): void;
  tell(event: Event): void;
  note(...news: readonly News[]): void;
  /** Loads the sheet again. */
  reopen(): Promise<unknown>;
  /** A change was refused: it cannot be undone any more. */
  forget(changeId: string): void;
}

/**
 * Everything between an open sheet and the server: changes both ways, changes that wait while the server is away,
 * presence, and lost updates. It stays while the sheet is loaded again.
 */
export class Connection {
  private link: LiveLink | null = null;
  private state: LinkState = 'opening';
  private replica: Replica | null = null;
  private readonly own = new OwnEntries();
  private readonly people: Others | null;
  private readonly store: WaitingStore | null;

  /** `who` is the presence key; null for an anonymous reader, whose changes are not kept. */
  constructor(
    private readonly sheet: SheetId,
    who: string | null,
    private readonly host: ConnectionHost,
  ) {
    this.people = who === null ? null : new Others(sheet);
    this.store = who === null ? null : new WaitingStore(sheet, who);
  }

  /**
   * Follows the server for a replica from now on, from the address that `from` gives, and sends what was on its way.
   */
  use(replica: Replica, from: () => string, waiting: readonly Change[]): void {
    this.link?.close();
    this.replica = replica;
    const { people, host } = this;
    const reopen = () => void host.reopen().catch(() => this.tellState('offline'));
    this.link = new LiveLink(this.sheet, () => from() + (people ? `&page=${people.key}` : ''), {
      received: this.gathered(replica, (changes) => {
        this.tellLost(replica, changes);
        replica.receiveAll(changes);
        host.note('frame', 'window', 'legend', 'selection');
        this.tellState('live');
      }),
      repainted: (repaint) =>
        host.take(() => {
          this.tellLost(replica, repaint.changes);
          replica.repaint(repaint);
          if (repaint.legend) host.tell({ kind: 'legend-told', meanings: repaint.legend });
          host.note('frame', 'window', 'selection');
          this.tellState('live');
        }),
      present: (present) => {
        people?.hear(present);
        host.note('others');
      },
      accepted: (change, sequence) =>
        host.take(() => {
          void this.store?.drop(change.id);
          replica.acknowledge(change.id, sequence);
          this.tellState('live');
        }),
      refused: (change, message) =>
        host.take(() => {
          void this.store?.drop(change.id);
          replica.refuse(change.id);
          host.forget(change.id);
          host.tell({ kind: 'change-refused', message });
          this.tellState('live');
          host.note('frame', 'window', 'legend', 'undo');
        }),
      stale: reopen,
      // After a reload, the page hears what has become of it.
      closed: reopen,
      state: (state) => this.tellState(state),
    });
    for (const change of waiting) {
      replica.apply(change);
      this.link.send(change);
    }
    void this.store?.left().then((left) => host.take(() => this.sendLeft(left)));
  }

  /**
   * Applies changes as they come; while many wait here, those of some time together: everything that waits is replayed
   * over each lot, so that many lots would take the square of what waits.
   */
  private gathered(
    replica: Replica,
    take: (changes: readonly RecordedChange[]) => void,
  ): (changes: readonly RecordedChange[]) => void {
    const arrived: RecordedChange[] = [];
    const takeAll = () => this.replica === replica && this.host.take(() => take(arrived.splice(0)));
    return (changes) => {
      const isDue = arrived.length > 0;
      arrived.push(...changes);
      if (isDue) return;
      const restMs = Math.min(MAX_REST_MS, Math.max(0, replica.waiting.length - FEW_WAITING));
      if (restMs === 0) takeAll();
      else setTimeout(takeAll, restMs);
    };
  }

  /** Sends a change that has been applied here. */
  send(change: Change): void {
    const sent: SentChange = { ...change, seen: this.replica!.sequence };
    void this.store?.put(sent);
    this.link?.send(sent);
    // That a change waits is reported with its effect, not in a frame of its own.
    this.host.note('link');
  }

  select(selection: Selection): void {
    if (this.replica) this.people?.select(this.replica.sheet, selection);
  }

  /** Who else has the sheet open, and where. */
  others(sheet: Sheet): PresentPerson[] {
    return this.people?.tell(sheet) ?? [];
  }

  close(): void {
    this.people?.close();
    this.link?.close();
  }

  /** Unsent changes of a page that is gone. */
  private sendLeft(left: readonly SentChange[]): void {
    const { replica, link } = this;
    if (!replica || !link || left.length === 0) return;
    const waiting = new Set(replica.waiting.map(({ id }) => id));
    for (const change of left) {
      if (waiting.has(change.id)) continue;
      replica.apply(change);
      link.send(change);
    }
    this.host.note('frame', 'window', 'legend');
  }

  /**
   * Remembers this person's entries that come back, and reports those that others wrote over without having seen them.
   */
  private tellLost(replica: Replica, changes: readonly RecordedChange[]): void {
    const mine = new Set(replica.waiting.map(({ id }) => id));
    const lost = changes.flatMap((change) => {
      if (!mine.has(change.change.id)) return this.own.lostTo(change);
      this.own.note(change);
      return [];
    });
    const cells = lost.flatMap((entry) => lostCell(replica.sheet, entry) ?? []);
    if (cells.length) this.host.tell({ kind: 'entries-lost', lost: cells });
  }

  /** How the connection stands, and how much waits. */
  get standing(): Event {
    return { kind: 'link-changed', state: this.state, pending: this.link?.unacknowledged ?? 0 };
  }

  private tellState(state: 'live' | 'offline'): void {
    this.state = state;
    this.host.tell(this.standing);
  }
}
