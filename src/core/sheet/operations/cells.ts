import type { CellInput } from '../change';
import type { Effect } from '../effect';
import { counted } from './counted';
import type { OperationKind, OperationOf } from './operation-kind';

export const setCells: OperationKind<OperationOf<'set-cells'>> = {
  apply(sheet, { cells }) {
    const effects: Effect[] = [];
    const undo: CellInput[] = [];
    for (const { row, field, input, was } of cells) {
      const slot = sheet.findSlot(row);
      const column = sheet.findColumn(field);
      if (slot === undefined || column === undefined) continue;
      const held = sheet.columns[column]!.inputAt(slot);
      if (was !== undefined && was !== held) continue;
      undo.push({ row, field, input: held, ...(was === undefined ? {} : { was: input }) });
      effects.push({ kind: 'cell', column, slot, before: sheet.setInput(column, slot, input) });
    }
    return { effects, inverse: undo.length ? [{ kind: 'set-cells', cells: undo.reverse() }] : [] };
  },
  words: ({ cells }, { count }) => [`${counted(count ?? cells.length, 'cell')} entered`],
  size: ({ cells }) => cells.length,
  entries: ({ cells }) => cells,
  // Hidden cells are left out one by one; the others carry their present content, so that nothing is passed on that the
  // sheet itself would not show.
  restrict(operation, view, sheet) {
    const sent = new Set(view.columns);
    const cells = operation.cells.flatMap(({ row, field }) => {
      const [slot, column] = [sheet.findSlot(row), sheet.findColumn(field)];
      if (slot === undefined || column === undefined || !sent.has(column) || !view.isVisible(column, slot)) return [];
      return { row, field, input: view.inputAt(column, slot) };
    });
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  },
};
