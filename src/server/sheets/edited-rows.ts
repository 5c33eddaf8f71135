import type { RowAbout, StoredRow } from '../../core/sheet/change';
import type { RowId } from '../../core/sheet/ids';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Rows that were read to be changed, one step after another. */
export class EditedRows {
  /** Undefined for those that are not there. */
  private readonly rows = new Map<RowId, StoredRow | undefined>();
  private readonly touched = new Set<RowId>();

  /** Characters of what was read and put: at least as many as are held. */
  characters = 0;

  get size(): number {
    return this.rows.size;
  }

  unread(ids: Iterable<RowId>): RowId[] {
    return [...new Set(ids)].filter((id) => !this.rows.has(id));
  }

  /** What was found of some rows. */
  add(ids: readonly RowId[], found: readonly StoredRow[]): void {
    for (const id of ids) this.rows.set(id, undefined);
    for (const row of found) this.set(row);
  }

  find(id: RowId): StoredRow | undefined {
    return this.rows.get(id);
  }

  /** Throws a Refusal where the row is not there. */
  get(id: RowId): StoredRow {
    const row = this.find(id);
    if (!row) throw new Refusal('row-gone', refusalText('recordHasBeenRemoved'));
    return row;
  }

  put(id: RowId, change: Partial<StoredRow>): void {
    this.set({ ...this.get(id), ...change });
    this.touched.add(id);
  }

  /** The format of a row; nulls and empty lists are left out. */
  putAbout(id: RowId, about: { readonly [name in keyof RowAbout]: RowAbout[name] | null }): void {
    const { about: _, ...row } = this.get(id);
    const given = Object.entries(about).filter(
      ([name, value]) => value !== null && !(name === 'styles' && Object.keys(value as object).length === 0),
    );
    this.set(given.length ? { ...row, about: Object.fromEntries(given) } : row);
    this.touched.add(id);
  }

  edited(): StoredRow[] {
    return [...this.touched].map((id) => this.get(id));
  }

  /** What was edited is written: it is what would be read now. */
  wereWritten(): void {
    this.touched.clear();
  }

  clear(): void {
    this.rows.clear();
    this.touched.clear();
    this.characters = 0;
  }

  private set(row: StoredRow): void {
    this.rows.set(row.id, row);
    for (const text of Object.values(row.cells)) this.characters += text.length;
  }
}
