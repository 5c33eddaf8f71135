import { fillingOf } from '../../core/sharing/filling';
import type { RowAbout, StoredRow } from '../../core/sheet/change';
import type { Field } from '../../core/sheet/field';
import type { RowId, SheetId } from '../../core/sheet/ids';
import type { Filling } from '../../core/sheet/sheet-part';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { Queryable, Transaction } from '../database';
import { Refusal } from '../refusal';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { findRows, updateRows } from '../sql/row';
import { readRules } from '../sql/rule';
import { refusalText } from '../../texts/refusal-text';

/** That a change needs more than rows, fields and rules in memory: the sheet has to be locked for it. */
export class NeedsLock extends Error {
  constructor() {
    super('the sheet has to be locked');
  }
}

/**
 * A sheet at one place of its log, while changes are made to it. What was read of it stays true as long as nobody else
 * changes it, and rows that are edited one step after another are written once.
 */
export class HeldSheet {
  private fieldsRead: Promise<readonly Field[]> | null = null;
  private rulesRead: Promise<readonly StoredRule[]> | null = null;
  private fillingRead: Promise<Filling> | null = null;
  readonly rows = new EditedRows();

  constructor(
    readonly id: SheetId,
    private readonly reads: Queryable,
    /** The transaction that has locked the sheet, if one has. */
    private readonly lock?: Transaction,
  ) {}

  fields(): Promise<readonly Field[]> {
    return (this.fieldsRead ??= readFields(this.reads, this.id));
  }

  rules(): Promise<readonly StoredRule[]> {
    return (this.rulesRead ??= readRules(this.reads, this.id));
  }

  filling(): Promise<Filling> {
    return (this.fillingRead ??= readParts(this.reads, this.id, ['filling']).then(fillingOf));
  }

  /** The rows, of which at least those with these ids are read, to be looked at and edited. */
  async rowsWith(ids: Iterable<RowId>): Promise<EditedRows> {
    const unread = this.rows.unread(ids);
    if (unread.length) this.rows.add(unread, await findRows(this.reads, this.id, unread));
    return this.rows;
  }

  /**
   * The transaction that holds it, for statements that read or write something else than the above: what was edited is
   * written, and what was read is forgotten. Throws NeedsLock without one.
   */
  async settled(): Promise<Transaction> {
    if (!this.lock) throw new NeedsLock();
    const edited = this.rows.edited();
    [this.fieldsRead, this.rulesRead, this.fillingRead] = [null, null, null];
    this.rows.clear();
    if (edited.length) await updateRows(this.lock, this.id, edited);
    return this.lock;
  }
}

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
