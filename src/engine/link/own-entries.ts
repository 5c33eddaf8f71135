import type { CellInput, Operation } from '../../core/sheet/change';
import { entriesOf } from '../../core/sheet/operations/registry';
import type { FieldId, RowId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';

/** An entry of this person that somebody overwrote without having seen it. */
export interface LostEntry {
  readonly row: RowId;
  readonly field: FieldId;
  readonly mine: string;
  readonly theirs: string;
  /** The name of its author, where it may be shown. */
  readonly by: string | null;
}

/** Entries that are remembered, and cells of one change that are entries: more are a paste or a fill. */
const MAX_ENTRIES = 200;
const MAX_CELLS = 20;

/** This person's recent entries, to report lost updates. */
export class OwnEntries {
  private readonly entries = new Map<string, { readonly input: string; readonly sequence: number }>();

  /** Remembers a change of this person that the server has taken. */
  note({ sequence, change }: RecordedChange): void {
    for (const { row, field, input } of fewEntries(change.operations)) {
      const key = `${row} ${field}`;
      this.entries.delete(key);
      this.entries.set(key, { input, sequence });
    }
    for (const key of this.entries.keys()) {
      if (this.entries.size <= MAX_ENTRIES) break;
      this.entries.delete(key);
    }
  }

  /** Entries that somebody else's change wrote over without having seen them. */
  lostTo({ change, seen, by }: RecordedChange): LostEntry[] {
    return fewEntries(change.operations).flatMap(({ row, field, input }) => {
      const key = `${row} ${field}`;
      const own = this.entries.get(key);
      this.entries.delete(key);
      const isLost = own !== undefined && seen !== undefined && own.sequence > seen && own.input !== input;
      return isLost ? { row, field, mine: own.input, theirs: input, by: by ?? null } : [];
    });
  }
}

/** The entries of a change, unless there are very many: those of a paste or fill are not remembered. */
function fewEntries(operations: readonly Operation[]): readonly CellInput[] {
  const entries = entriesOf(operations);
  return entries.length <= MAX_CELLS ? entries : [];
}
