import type { SheetId } from '../../core/sheet/ids';
import { sizeOf } from '../../core/sheet/operations/registry';
import type { SentChange } from '../../protocol/recorded-change';
import type { Sql } from '../database';
import { metrics } from '../metrics';
import { processWide } from '../process-wide';
import { Refusal } from '../refusal';
import { isUnavailable } from '../unavailable';
import { refusalText } from '../../texts/refusal-text';
import { ChangeQueue, type Outcome } from './change-queue';
import { keptSheets } from './kept-sheets';
import { knownOperations, type Author, type Compute, type MadeChange } from './made-change';
import { NotTaken, takeTogether, type Sequences } from './take-together';

interface CommitInput {
  readonly sheet: SheetId;
  readonly by: Author;
  readonly change: SentChange;
}

/** Changes that are taken together, and what they may touch altogether. A larger one is taken by itself. */
const MOST_TOGETHER = 256;
const MOST_ITEMS = 2000;

/** Changes of a group that are left out at most: with more, each is taken by itself. */
const MOST_LEFT_OUT = 8;

/** Changes that wait, for one sheet and in all, and how long the first of a sheet does, before others are put off. */
const MOST_WAITING = 600;
const MOST_WAITING_IN_ALL = 2000;
const LONGEST_WAIT_MS = 2000;

const queue = () => processWide('changes', () => new ChangeQueue<MadeChange, number>(takeGroup, together));

/** How many of some changes, the first ones, are taken together. */
function together(changes: readonly MadeChange[]): number {
  let items = 0;
  const end = changes.findIndex((made, at) => {
    const operations = knownOperations(made);
    items += operations ? sizeOf(operations) : Infinity;
    return at === MOST_TOGETHER || items > MOST_ITEMS;
  });
  return end < 0 ? changes.length : Math.max(1, end);
}

/**
 * Takes a change: checks whether its author may, applies each operation, records it with its inverse, moves the sheet's
 * head, and notifies every process. Changes that wait for the same sheet are taken at once, as if one after another. A
 * change whose id was taken before is answered as it was then. Throws a Refusal, and leaves nothing of it behind, where
 * it cannot be taken.
 */
export const takeChange = (sql: Sql, { sheet, by, change: { id, seen, operations } }: CommitInput): Promise<number> =>
  enqueue(sheet, { sql, by, id, seen, operations });

interface ComputedChange extends Omit<MadeChange, 'operations' | 'sql'> {
  readonly sheet: SheetId;
  readonly compute: Compute;
}

/** The same for a change whose operations depend on the sheet as it is when its turn comes. */
export const commitComputed = (sql: Sql, { sheet, compute, ...made }: ComputedChange): Promise<number> =>
  enqueue(sheet, { ...made, sql, operations: compute });

async function enqueue(sheet: SheetId, made: MadeChange): Promise<number> {
  const isFull = queue().waiting(sheet) >= MOST_WAITING || queue().inAll >= MOST_WAITING_IN_ALL;
  if (isFull || queue().waitedMs(sheet) > LONGEST_WAIT_MS)
    throw new Refusal('too-busy', refusalText('tooManyChangesWait'));
  return queue().add(sheet, made);
}

/** Takes changes together; those that cannot be taken are left out, and the others taken without them. */
async function takeGroup(sheet: SheetId, group: readonly MadeChange[]): Promise<readonly Outcome<number>[]> {
  const failed = new Map<MadeChange, unknown>();
  for (;;) {
    const rest = group.filter((made) => !failed.has(made));
    try {
      const taken = await takeAll(sheet, rest);
      return group.map((made) => (failed.has(made) ? { error: failed.get(made) } : { value: taken.get(made)! }));
    } catch (error) {
      const cause: unknown = error instanceof NotTaken ? error.cause : error;
      if (rest.length === 1) failed.set(rest[0]!, cause);
      // Nothing is known of any of them then, also not of those that were refused after one that is not taken yet.
      else if (isUnavailable(cause)) throw cause;
      else if (error instanceof NotTaken && failed.size < MOST_LEFT_OUT) failed.set(error.change, cause);
      else return oneByOne(sheet, group);
    }
  }
}

async function takeAll(sheet: SheetId, changes: readonly MadeChange[]): Promise<Sequences> {
  const [first] = changes;
  if (!first) return new Map();
  const taken = (await keptSheets().take(first.sql, sheet, changes)) ?? (await takeTogether(sheet, changes));
  metrics().changes.inc(changes.length);
  return taken;
}

/** Takes each by itself, so that what is wrong with one is no harm to the others. */
async function oneByOne(sheet: SheetId, changes: readonly MadeChange[]): Promise<readonly Outcome<number>[]> {
  const outcomes: Outcome<number>[] = [];
  for (const made of changes) outcomes.push(...(await takeGroup(sheet, [made])));
  return outcomes;
}
