import type { Change } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { Event, LinkState } from '../../protocol/engine-messages';
import type { Selection, PresentPerson } from '../../protocol/sheet-view';
import type { RecordedChange, SentChange } from '../../protocol/recorded-change';
import type { News } from '../news';
import { applyLinkEvent, type SheetEvent } from './apply-link-event';
import { LiveLink, type LinkEvent } from './live-link';
import { Others } from './others';
import { OwnEntries } from './own-entries';
import type { Replica } from '../replica/replica';
import { WaitingStore } from './waiting-store';

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
  /** Changes of others that are applied together in a moment. */
  private arrived: RecordedChange[] = [];
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
    this.arrived = [];
    const { people, host } = this;
    this.link = new LiveLink(
      this.sheet,
      () => from() + (people ? `&page=${people.key}` : ''),
      (event) => this.onLinkEvent(replica, event),
    );
    for (const change of waiting) {
      replica.apply(change);
      this.link.send(change);
    }
    void this.store?.left().then((left) => host.take(() => this.sendLeft(left)));
  }

  private onLinkEvent(replica: Replica, event: LinkEvent): void {
    switch (event.kind) {
      case 'presence':
        this.people?.hear(event.people);
        return this.host.note('others');
      case 'state':
        return this.tellState(event.state);
      // After a reload, the page also hears what has become of its access.
      case 'stale':
      case 'closed':
        return void this.host.reopen().catch(() => this.tellState('offline'));
      case 'changes':
        return this.gather(replica, event.changes);
      default:
        return this.host.take(() => this.apply(replica, event));
    }
  }

  /**
   * Applies changes as they come; while many wait here, those of some time together: everything that waits is replayed
   * over each lot, so that many lots would take the square of what waits.
   */
  private gather(replica: Replica, changes: readonly RecordedChange[]): void {
    if (this.replica !== replica) return;
    const { arrived } = this;
    const isDue = arrived.length > 0;
    arrived.push(...changes);
    if (isDue) return;
    const applyAll = () =>
      this.replica === replica &&
      this.host.take(() => this.apply(replica, { kind: 'changes', changes: arrived.splice(0) }));
    const restMs = Math.min(MAX_REST_MS, Math.max(0, replica.waiting.length - FEW_WAITING));
    if (restMs === 0) applyAll();
    else setTimeout(applyAll, restMs);
  }

  private apply(replica: Replica, event: SheetEvent): void {
    if (event.kind === 'accepted' || event.kind === 'refused') void this.store?.drop(event.change.id);
    const { news, events } = applyLinkEvent(replica, this.own, event);
    if (event.kind === 'refused') this.host.forget(event.change.id);
    for (const one of events) this.host.tell(one);
    if (news.length) this.host.note(...news);
    this.tellState('live');
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

  /** How the connection stands, and how much waits. */
  get standing(): Event {
    return { kind: 'link-changed', state: this.state, pending: this.link?.unacknowledged ?? 0 };
  }

  private tellState(state: 'live' | 'busy' | 'offline'): void {
    this.state = state;
    this.host.tell(this.standing);
  }
}
