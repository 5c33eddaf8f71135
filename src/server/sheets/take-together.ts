import type { SheetId } from '../../core/sheet/ids';
import { entriesOf, sizeOf } from '../../core/sheet/operations/registry';
import { codeOf } from '../../core/values/error-message';
import type { Transaction } from '../database';
import { Refusal } from '../refusal';
import { findChanges, writeChanges, type LoggedChange } from '../sql/change';
import { lockHead } from '../sql/sheet';
import { refusalText } from '../../texts/refusal-text';
import { applyChange } from './apply-change';
import { HeldSheet } from './held-sheet';
import { knownOperations, type MadeChange } from './made-change';

/** Items from which on it is the change itself that takes the database too long, and not what else is going on. */
const MANY_ITEMS = 50_000;
/** PostgreSQL's code for a statement that took too long. */
const TIMED_OUT = '57014';

/** That a change cannot be taken, which ends the transaction of its group. */
export class NotTaken extends Error {
  constructor(
    readonly change: MadeChange,
    override readonly cause: unknown,
  ) {
    super('a change cannot be taken');
  }
}

/** The sequence of each change. */
export type Sequences = ReadonlyMap<MadeChange, number>;

/**
 * Takes changes to a sheet in one transaction, which locks its head first. Throws NotTaken for the first that cannot be
 * taken, and takes none then.
 */
export async function takeTogether(id: SheetId, changes: readonly MadeChange[]): Promise<Sequences> {
  let items = 0;
  const work = async (tx: Transaction): Promise<Sequences> => {
    const held = new HeldSheet(id, tx, tx);
    // A transaction's queries run in the order in which they are sent: those that need no answer of another go at once.
    const [head, known] = await Promise.all([
      lockHead(tx, id),
      findChanges(
        tx,
        id,
        changes.map((made) => made.id),
      ),
      readAhead(held, changes),
    ]);
    if (head === undefined) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    const log: LoggedChange[] = [];
    const sequences = new Map<MadeChange, number>();
    for (const made of changes) {
      const last = head + log.length;
      const sequence = known.get(made.id) ?? last + 1;
      sequences.set(made, sequence);
      if (sequence <= last) continue;
      known.set(made.id, sequence);
      try {
        const operations = typeof made.operations === 'function' ? await made.operations(tx, last) : made.operations;
        items += sizeOf(operations);
        log.push(...(await applyChange(held, { made, operations, sequence })));
      } catch (error) {
        throw new NotTaken(made, inWords(error, items));
      }
    }
    if (log.length === 0) return sequences;
    const written = await writeChanges(tx, [{ sheet: id, head, lastId: null, rows: held.rows.edited(), log }]);
    // Nobody must hear that a change is kept which is not.
    if (!written.has(id)) throw new Error('a locked sheet was not written');
    return sequences;
  };
  try {
    return await changes[0]!.sql.begin(work);
  } catch (error) {
    throw inWords(error, items);
  }
}

/** A Refusal in place of the error where so many items took too long: they would the next time as well. */
const inWords = (error: unknown, items: number): unknown =>
  codeOf(error) === TIMED_OUT && items >= MANY_ITEMS
    ? new Refusal('too-long', refusalText('changeTakesTooLong'))
    : error;

/** Reads what entries need, all of it at once. */
async function readAhead(sheet: HeldSheet, changes: readonly MadeChange[]): Promise<void> {
  const entries = changes.flatMap((made) => entriesOf(knownOperations(made) ?? []));
  if (entries.length) await Promise.all([sheet.fields(), sheet.rowsWith(entries.map(({ row }) => row))]);
}
