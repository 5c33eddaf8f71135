import { fillingOf } from '../../core/sharing/filling';
import type { Field } from '../../core/sheet/field';
import type { RowId, SheetId } from '../../core/sheet/ids';
import type { Filling } from '../../core/sheet/sheet-part';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { Queryable, Transaction } from '../database';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { findRows, updateRows } from '../sql/row';
import { readRules } from '../sql/rule';
import { EditedRows } from './edited-rows';

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
