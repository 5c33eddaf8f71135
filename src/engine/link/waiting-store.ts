import { createStore, del, entries, set, type UseStore } from 'idb-keyval';
import type { SentChange } from '../../protocol/recorded-change';
import type { SheetId } from '../../core/sheet/ids';

/**
 * Changes that the server has not answered yet, kept in the browser's database, so that they outlive the page: by
 * sheet, by who made them, and in their order. Where there is no such database nothing is kept.
 */
export class WaitingStore {
  private readonly store: UseStore | null;
  private readonly keys = new Map<string, string>();
  private made = 0;

  constructor(
    private readonly sheet: SheetId,
    private readonly who: string,
  ) {
    this.store = typeof indexedDB === 'undefined' ? null : createStore('auxesis', 'waiting-changes');
  }

  async put(change: SentChange): Promise<void> {
    if (!this.store || this.keys.has(change.id)) return;
    // Keys are in order as text: the moment, and a count for what is made within one.
    const key = `${this.prefix}${String(Date.now()).padStart(15, '0')} ${String(this.made++).padStart(6, '0')}`;
    this.keys.set(change.id, key);
    await set(key, change, this.store).catch(() => {});
  }

  async drop(id: string): Promise<void> {
    const key = this.keys.get(id);
    this.keys.delete(id);
    if (this.store && key !== undefined) await del(key, this.store).catch(() => {});
  }

  /** Changes that a closed page left behind, the oldest first. */
  async left(): Promise<SentChange[]> {
    if (!this.store) return [];
    const kept = await entries<string, SentChange>(this.store).catch(() => []);
    const own = kept.filter(([key]) => key.startsWith(this.prefix)).sort(([a], [b]) => (a < b ? -1 : 1));
    for (const [key, { id }] of own) this.keys.set(id, key);
    return own.map(([, change]) => change);
  }

  private get prefix(): string {
    return `${this.sheet} ${this.who} `;
  }
}
