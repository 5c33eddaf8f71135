import { itemAt } from '../../values/item-at';
import type { FieldId, RowId } from '../../sheet/ids';
import { columnLetters } from '../../sheet/address';
import { shownAt } from '../../sheet/shown-cell';
import type { Evaluation } from '../evaluate/evaluation';
import { recordName } from './record-name';

/** The shown text of a cell, and the rules that paint it. */
export interface CellState {
  readonly shown: string;
  readonly rules: readonly string[];
}

export interface CellDifference {
  readonly row: RowId;
  readonly field: FieldId;
  readonly record: string;
  readonly label: string;
  readonly before: CellState;
  readonly after: CellState;
}

export interface SheetDifference {
  /** Cells that show or look otherwise, at most `MAX_CELLS` of them. */
  readonly cells: readonly CellDifference[];
  readonly isCut: boolean;
  /** Names of records that came and went. */
  readonly added: readonly string[];
  readonly removed: readonly string[];
}

/** Cells that are listed at most. */
export const MAX_CELLS = 500;

/** The diff of a sheet between two moments: rows and fields are matched by id. Cost: a look at every cell. */
export function sheetDifference(before: Evaluation, after: Evaluation): SheetDifference {
  const cells: CellDifference[] = [];
  const [was, is] = [before.sheet, after.sheet];
  const fields = is.fields.flatMap((field, column) => {
    const earlier = was.findColumn(field.id);
    return earlier === undefined
      ? []
      : { id: field.id, column, earlier, label: is.labelOf(column) ?? columnLetters(column) };
  });
  let isCut = false;
  for (const slot of is.order) {
    const row = is.rowId(slot);
    const earlierSlot = was.findSlot(row);
    if (earlierSlot === undefined) continue;
    for (const { id, column, earlier, label } of fields) {
      const [then, now] = [stateOf(before, earlier, earlierSlot), stateOf(after, column, slot)];
      if (then.shown === now.shown && then.rules.join('\n') === now.rules.join('\n')) continue;
      isCut ||= cells.length === MAX_CELLS;
      if (cells.length < MAX_CELLS)
        cells.push({ row, field: id, record: recordName(is, slot, NONE), label, before: then, after: now });
    }
  }
  return {
    cells,
    isCut,
    added: is.order
      .filter((slot) => was.findSlot(is.rowId(slot)) === undefined)
      .map((slot) => recordName(is, slot, NONE)),
    removed: was.order
      .filter((slot) => is.findSlot(was.rowId(slot)) === undefined)
      .map((slot) => recordName(was, slot, NONE)),
  };
}

const NONE: ReadonlySet<number> = new Set();

function stateOf({ sheet, resolver, activeRules }: Evaluation, column: number, slot: number): CellState {
  return {
    shown: shownAt(sheet, column, slot),
    rules: resolver.resolve(column, slot).rules.map((rule) => itemAt(activeRules, rule).rule.name),
  };
}
