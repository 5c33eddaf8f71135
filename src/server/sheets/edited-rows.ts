import type { RowAbout, StoredRow } from '../../core/sheet/change';
import type { RowId } from '../../core/sheet/ids';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Rows read to be changed, one step after another, before they are written once. */
export class EditedRows {
  private readonly rows: Map<RowId, StoredRow>;
  private readonly touched = new Set<RowId>();

  constructor(found: readonly StoredRow[]) {
    this.rows = new Map(found.map((row) => [row.id, row]));
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
    this.rows.set(id, { ...this.get(id), ...change });
    this.touched.add(id);
  }

  /** The format of a row; nulls and empty lists are left out. */
  putAbout(id: RowId, about: { readonly [name in keyof RowAbout]: RowAbout[name] | null }): void {
    const { about: _, ...row } = this.get(id);
    const given = Object.entries(about).filter(
      ([name, value]) => value !== null && !(name === 'styles' && Object.keys(value as object).length === 0),
    );
    this.rows.set(id, given.length ? { ...row, about: Object.fromEntries(given) } : row);
    this.touched.add(id);
  }

  edited(): StoredRow[] {
    return [...this.touched].map((id) => this.get(id));
  }
}
