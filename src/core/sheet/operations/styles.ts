import { counted } from '../../values/counted';
import type { CellStyle } from '../change';
import { LAYOUT } from '../effect';
import type { OperationKind, OperationOf } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'set-styles': { readonly kind: 'set-styles'; readonly cells: readonly CellStyle[] };
  }
}

export const setStyles: OperationKind<OperationOf<'set-styles'>> = {
  schema: ({ styles }) => ({ cells: styles }),
  apply(sheet, { cells }) {
    const undo: CellStyle[] = [];
    for (const { row, field, style } of cells) {
      const cell = sheet.findCell({ row, field });
      if (!cell) continue;
      const { column, slot } = cell;
      undo.push({ row, field, style: sheet.column(column).styles.get(slot) ?? null });
      sheet.setStyle(column, slot, style);
    }
    // Rules that compare shown texts depend on number formats.
    const touches = [...cells, ...undo].some(({ style }) => style?.number !== undefined);
    return {
      effects: touches ? [LAYOUT] : [],
      inverse: undo.length ? [{ kind: 'set-styles', cells: undo.reverse() }] : [],
    };
  },
  words: ({ cells }, { count }) => [`${counted(count ?? cells.length, 'cell')} formatted`],
  size: ({ cells }) => cells.length,
  restrict(operation, { columns }, sheet) {
    const sent = new Set(columns.map((column) => sheet.field(column).id));
    const cells = operation.cells.filter(({ field }) => sent.has(field));
    return cells.length ? [{ kind: 'set-styles', cells }] : [];
  },
};
