import type { SheetId } from '../../core/sheet/ids';
import { PRESENCE_BEAT_MS, type Present } from '../../protocol/presence';
import type { Queryable } from '../database';
import { log } from '../log';

/** The channel of presence: `Announced` as JSON. */
export const PRESENCE_CHANNEL = 'sheet_presence';

/** A page that has not announced itself for this time is gone. */
const GONE_MS = PRESENCE_BEAT_MS * 2.5;

/** Somebody is where they say; without `present` they have left. */
export interface Announced {
  readonly sheet: SheetId;
  readonly key: string;
  readonly present: Present | null;
}

/**
 * The identity of a page: the key that it has made, which others hear of, with who has it open. So nobody speaks for
 * the page of somebody else.
 */
export const ownKey = (author: string, key: string): string => `${author} ${key}`;

/** Announces a presence to every process. */
export async function announce(sql: Queryable, announced: Announced): Promise<void> {
  await sql`select pg_notify(${PRESENCE_CHANNEL}, ${JSON.stringify(announced)})`;
}

/** Announces that a page has left. Nobody waits for it: a silent page is gone before long all the same. */
export function leave(sql: Queryable, sheet: SheetId, page: string): void {
  announce(sql, { sheet, key: page, present: null }).catch((error: unknown) =>
    log().error({ err: error }, 'telling who left failed'),
  );
}

/** Announcements within this time are passed on once. */
const GATHER_MS = 100;

type Watcher = (present: readonly Present[]) => void;

type Pages = Map<string, { readonly present: Present; readonly heardAt: number }>;

/** Who has which sheet open, by what was announced to this process. */
export class PresenceBook {
  private readonly sheets = new Map<SheetId, Pages>();
  private readonly watchers = new Map<SheetId, Set<Watcher>>();
  private readonly telling = new Set<SheetId>();

  /** Applies an announcement. */
  hear({ sheet, key, present }: Announced, nowMs: number): void {
    let pages = this.sheets.get(sheet);
    if (!pages) this.sheets.set(sheet, (pages = new Map()));
    if (present) pages.set(key, { present, heardAt: nowMs });
    else pages.delete(key);
    this.tell(sheet);
  }

  /** Forgets pages that have been silent for long. */
  prune(nowMs: number): void {
    for (const [sheet, pages] of this.sheets) {
      const before = pages.size;
      for (const [key, { heardAt }] of pages) if (nowMs - heardAt > GONE_MS) pages.delete(key);
      if (pages.size === 0) this.sheets.delete(sheet);
      if (pages.size !== before) this.tell(sheet);
    }
  }

  present(sheet: SheetId): Present[] {
    return [...(this.sheets.get(sheet)?.values() ?? [])].map(({ present }) => present);
  }

  /** Calls with who is there, now and whenever that changes. Returns how to stop. */
  watch(sheet: SheetId, watcher: Watcher): () => void {
    let watchers = this.watchers.get(sheet);
    if (!watchers) this.watchers.set(sheet, (watchers = new Set()));
    const own = watchers.add(watcher);
    watcher(this.present(sheet));
    return () => {
      own.delete(watcher);
      if (own.size === 0) this.watchers.delete(sheet);
    };
  }

  private tell(sheet: SheetId): void {
    if (this.telling.has(sheet) || !this.watchers.has(sheet)) return;
    this.telling.add(sheet);
    setTimeout(() => {
      this.telling.delete(sheet);
      const present = this.present(sheet);
      this.watchers.get(sheet)?.forEach((watcher) => watcher(present));
    }, GATHER_MS);
  }
}
