import { nanoid } from 'nanoid';
import type { Change, Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { SentChange } from '../../protocol/recorded-change';
import { checkOperations } from '../access/check-operations';
import type { Access } from '../access/find-access';
import type { Sql, Transaction } from '../database';
import { appendChange, findChange, type AppendedChange } from '../sql/change';
import { lockHead, moveHead } from '../sql/sheet';
import { storedOperation } from './operations/registry';
import { sizeOf } from '../../core/sheet/operations/registry';
import { codeOf } from '../../core/values/error-message';
import { metrics } from '../metrics';
import { checkSize } from './check-size';
import { keepingOperations, mayHideMore } from './keep-from-fillers';
import { inTurnOf } from './sheet-turns';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** The channel of taken changes, to every process: "sheet-id sequence". */
export const CHANGE_CHANNEL = 'sheet_change';

/** Who makes a change. */
export type Author = Pick<Access, 'author' | 'role' | 'own'>;

interface CommitInput {
  readonly sheet: SheetId;
  readonly by: Author;
  readonly change: SentChange;
}

/** A change whose operations are worked out while nobody else can change the sheet. */
interface ComputedChange {
  readonly sheet: SheetId;
  readonly by: Author;
  readonly id: string;
  /** The last change that its author had seen. */
  readonly seen?: number | undefined;
  /** Gives the operations for the sheet as it is after the change `head`. */
  readonly compute: (tx: Transaction, head: number) => Promise<readonly Operation[]>;
}

/**
 * Takes a change in one transaction: locks the sheet's head, checks whether its author may, applies each operation,
 * records it with its inverse, and notifies every process on commit. A change whose id was taken before is answered as
 * it was then. Throws a Refusal, and leaves nothing behind, where it cannot be taken.
 */
export const takeChange = (sql: Sql, { sheet, by, change }: CommitInput): Promise<number> =>
  commitComputed(sql, {
    sheet,
    by,
    id: change.id,
    seen: change.seen,
    compute: () => Promise.resolve(change.operations),
  });

/** The same for a change whose operations depend on the sheet as it is when its turn comes. */
export const commitComputed = (sql: Sql, made: ComputedChange): Promise<number> =>
  inTurnOf(made.sheet, () => takeNow(sql, made));

/** Items from which on it is the change itself that takes the database too long, and not what else is going on. */
const MANY_ITEMS = 50_000;
/** PostgreSQL's code for a statement that took too long. */
const TIMED_OUT = '57014';

/** Throws a Refusal where a large change took too long: it would the next time as well. */
function refuseEndless(error: unknown, operations: readonly Operation[]): never {
  if (codeOf(error) === TIMED_OUT && sizeOf(operations) >= MANY_ITEMS)
    throw new Refusal('too-long', refusalText('changeTakesTooLong'));
  throw error;
}

async function takeNow(sql: Sql, { sheet, by, id, seen, compute }: ComputedChange): Promise<number> {
  return sql.begin(async (tx) => {
    // A transaction's queries run in the order in which they are sent: those that need no answer of another go at once.
    const [head, before] = await Promise.all([lockHead(tx, sheet), findChange(tx, sheet, id)]);
    if (head === undefined) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    if (before !== undefined) return before;
    const change: Change = { id, operations: await compute(tx, head) };
    await checkOperations(tx, sheet, { ...by, operations: change.operations });
    const sequence = head + 1;
    await recordChange(tx, { sheet, sequence, author: by.author, seen, change }).catch((error: unknown) =>
      refuseEndless(error, change.operations),
    );
    const isFollowed =
      mayHideMore(change.operations) &&
      (await keepHiddenFields(tx, { sheet, sequence: sequence + 1, author: by.author }));
    const last = isFollowed ? sequence + 1 : sequence;
    await Promise.all([
      moveHead(tx, sheet, last),
      // Within the transaction, so that the notice is sent on commit; the driver's own `notify` would take another
      // connection.
      tx`select pg_notify(${CHANGE_CHANNEL}, ${`${sheet} ${last}`})`,
    ]);
    metrics().changes.inc();
    return sequence;
  });
}

/**
 * Applies a change to the sheet and adds it to the log with its inverse. Throws a Refusal where the sheet would be too
 * large.
 */
async function recordChange(tx: Transaction, appended: Omit<AppendedChange, 'inverse'>): Promise<void> {
  const { sheet, sequence, change } = appended;
  const inverse: Operation[] = [];
  for (const operation of change.operations)
    inverse.unshift(...(await storedOperation(operation).apply(tx, sheet, operation)));
  await checkSize(tx, sheet, { operations: change.operations, sequence });
  await appendChange(tx, { ...appended, inverse });
}

/**
 * Adds a change of its own that keeps hidden fields from fillers. It is not held to what its author may: nobody gives
 * such fields away by the way.
 */
async function keepHiddenFields(
  tx: Transaction,
  place: Pick<AppendedChange, 'sheet' | 'sequence' | 'author'>,
): Promise<boolean> {
  const operations = await keepingOperations(tx, place.sheet, 'if-any');
  if (operations.length > 0) await recordChange(tx, { ...place, change: { id: nanoid(), operations } });
  return operations.length > 0;
}
