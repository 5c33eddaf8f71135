import { counted } from '../../values/counted';
import type { CellInput } from '../change';
import type { Effect } from '../effect';
import type { OperationKind, OperationOf } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'set-cells': { readonly kind: 'set-cells'; readonly cells: readonly CellInput[] };
  }
}

export const setCells: OperationKind<OperationOf<'set-cells'>> = {
  schema: ({ inputs }) => ({ cells: inputs }),
  apply(sheet, { cells }) {
    const effects: Effect[] = [];
    const undo: CellInput[] = [];
    for (const { row, field, input, was } of cells) {
      const cell = sheet.findCell({ row, field });
      if (!cell) continue;
      const { column, slot } = cell;
      const held = sheet.column(column).inputAt(slot);
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
      const cell = sheet.findCell({ row, field });
      if (!cell || !sent.has(cell.column) || !view.isVisible(cell.column, cell.slot)) return [];
      return { row, field, input: view.inputAt(cell.column, cell.slot) };
    });
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  },
};
