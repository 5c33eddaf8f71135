import { entriesOf, sizeOf } from '../../core/sheet/operations/registry';
import type { OperationName } from '../../core/sheet/operations/operation-kind';
import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { log } from '../log';
import { processWide } from '../process-wide';
import { findMoment, type LoggedChange } from '../sql/change';
import { applyChange } from './apply-change';
import { changeWriter } from './change-writer';
import { HeldSheet } from './held-sheet';
import { knownOperations, type MadeChange } from './made-change';
import type { Sequences } from './take-together';

/** Sheets that are kept at most, how much of each, and for how long after the last change. */
const MOST_SHEETS = 100;
const MOST_ROWS = 500;
const MOST_CHARACTERS = 1_000_000;
const IDLE_MS = 30_000;

/** A sheet as this process left it: after which change, and when. */
interface Kept {
  readonly sheet: HeldSheet;
  readonly head: number;
  readonly lastId: string | null;
  readonly usedAt: number;
}

/** Steps that need nothing but rows, fields and rules. */
const LOCKLESS: ReadonlySet<string> = new Set<OperationName>(['set-cells', 'set-styles', 'change-rows']);

/**
 * Takes entries into sheets without locking them. What this process knows of a sheet since its last change is true as
 * long as the last change of the sheet is the one it made: so changes are worked out in memory and written by one
 * statement, which does nothing where the last change is another.
 */
class KeptSheets {
  private readonly kept = new Map<SheetId, Kept>();

  /**
   * The sequence of each change; undefined, and nothing is taken, where the sheet has to be locked for them: to be
   * certain of a refusal, or that a change was not taken before.
   */
  async take(sql: Sql, id: SheetId, changes: readonly MadeChange[]): Promise<Sequences | undefined> {
    const known = this.kept.get(id);
    this.kept.delete(id);
    if (!changes.every(needsNoLock) || !areAllNew(changes)) return undefined;
    try {
      const kept = known ?? (await readSheet(sql, id, changes));
      const log = kept && (await write(sql, kept, changes));
      if (!log) return undefined;
      this.keep(id, { sheet: kept.sheet, head: lastItem(log).sequence, lastId: lastItem(log).change.id });
      return new Map(changes.map((made, at) => [made, kept.head + at + 1]));
    } catch (error) {
      // Whatever it was is found again, and told, where the sheet is locked.
      log().debug({ err: error }, 'changes could not be taken without a lock');
      return undefined;
    }
  }

  /** A sheet was changed, by whichever process. */
  changed(id: SheetId, sequence: number): void {
    const kept = this.kept.get(id);
    if (kept && kept.head < sequence) this.kept.delete(id);
  }

  private keep(id: SheetId, kept: Omit<Kept, 'usedAt'>): void {
    const { rows } = kept.sheet;
    rows.wereWritten();
    if (rows.size > MOST_ROWS || rows.characters > MOST_CHARACTERS) rows.clear();
    // The one that was used last comes last.
    this.kept.set(id, { ...kept, usedAt: Date.now() });
    for (const [other, { usedAt }] of this.kept) {
      if (this.kept.size <= MOST_SHEETS && Date.now() - usedAt < IDLE_MS) break;
      this.kept.delete(other);
    }
  }
}

export const keptSheets = (): KeptSheets => processWide('kept-sheets', () => new KeptSheets());

/** Whether a change is small, and can be worked out in memory. */
function needsNoLock(made: MadeChange): boolean {
  const operations = knownOperations(made);
  return !!operations && operations.every(({ kind }) => LOCKLESS.has(kind)) && sizeOf(operations) <= MOST_ROWS;
}

/** True where no two have the same id: of those only the first is taken. */
const areAllNew = (changes: readonly MadeChange[]): boolean =>
  new Set(changes.map(({ id }) => id)).size === changes.length;

/** A sheet with the rows that changes are about. */
async function readSheet(
  sql: Sql,
  id: SheetId,
  changes: readonly MadeChange[],
): Promise<Omit<Kept, 'usedAt'> | undefined> {
  const entries = changes.flatMap((made) => entriesOf(knownOperations(made) ?? []));
  const rows = [...new Set(entries.map(({ row }) => row))];
  const found = await findMoment(sql, id, rows);
  if (!found) return undefined;
  const held = new HeldSheet(id, sql);
  held.rows.add(rows, found.rows);
  return { sheet: held, head: found.head, lastId: found.lastId };
}

/** Works changes out, and writes them all; what went into the log, undefined where somebody else has changed the sheet. */
async function write(
  sql: Sql,
  { sheet, head, lastId }: Omit<Kept, 'usedAt'>,
  changes: readonly MadeChange[],
): Promise<readonly LoggedChange[] | undefined> {
  const log: LoggedChange[] = [];
  for (const made of changes) {
    const operations = knownOperations(made) ?? [];
    log.push(...(await applyChange(sheet, { made, operations, sequence: head + log.length + 1 })));
  }
  const isWritten = await changeWriter(sql).write({ sheet: sheet.id, head, lastId, rows: sheet.rows.edited(), log });
  return isWritten ? log : undefined;
}
