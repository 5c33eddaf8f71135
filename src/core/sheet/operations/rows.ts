import { counted } from '../../values/counted';
import type { RowChange, StoredRow } from '../change';
import { LAYOUT, type Effect } from '../effect';
import type { RowId } from '../ids';
import { aboutOf, changesAbout, rowBefore } from '../row-about';
import type { SheetStore } from '../sheet-store';
import type { OperationKind, OperationOf, Visibility } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'insert-rows': { readonly kind: 'insert-rows'; readonly rows: readonly StoredRow[] };
    'remove-rows': { readonly kind: 'remove-rows'; readonly rows: readonly RowId[] };
    'change-rows': { readonly kind: 'change-rows'; readonly rows: readonly RowChange[] };
  }
}

export const insertRows: OperationKind<OperationOf<'insert-rows'>> = {
  schema: ({ rows }) => ({ rows }),
  apply(sheet, { rows }) {
    const fresh = rows.filter((row) => sheet.findSlot(row.id) === undefined);
    sheet.addRows(fresh);
    const inverse = fresh.length ? [{ kind: 'remove-rows' as const, rows: fresh.map((row) => row.id) }] : [];
    return { effects: [LAYOUT], inverse };
  },
  words: ({ rows }, { count }) => [`${counted(count ?? rows.length, 'row')} added`],
  size: ({ rows }) => rows.length,
  restrict: ({ rows }, view, sheet) => [{ kind: 'insert-rows', rows: rows.map((row) => visibleRow(row, view, sheet)) }],
};

export const removeRows: OperationKind<OperationOf<'remove-rows'>> = {
  schema: ({ ids }) => ({ rows: ids }),
  apply(sheet, { rows: ids }) {
    const slots = ids.flatMap((id) => sheet.findSlot(id) ?? []);
    const rows = slots.map((slot) => sheet.storedRow(slot));
    sheet.dropSlots(slots);
    return { effects: [LAYOUT], inverse: rows.length ? [{ kind: 'insert-rows', rows }] : [] };
  },
  words: ({ rows }, { count }) => [`${counted(count ?? rows.length, 'row')} deleted`],
  size: ({ rows }) => rows.length,
  restrict: (operation) => [operation],
};

export const changeRows: OperationKind<OperationOf<'change-rows'>> = {
  schema: ({ rowChanges }) => ({ rows: rowChanges }),
  apply(sheet, { rows }) {
    const undo: RowChange[] = [];
    const effects: Effect[] = [];
    let moves = false;
    for (const change of rows) {
      const slot = sheet.findSlot(change.id);
      if (slot === undefined) continue;
      const { key, role } = change;
      const before = sheet.rowFormat(slot);
      undo.push(rowBefore({ key: sheet.rowKey(slot), role: sheet.roleAt(slot), about: before }, change));
      if (key !== undefined && key !== sheet.rowKey(slot)) {
        sheet.setKey(slot, key);
        moves = true;
      }
      if (role !== undefined && role !== sheet.roleAt(slot)) {
        sheet.setRole(slot, role);
        effects.push(LAYOUT);
      }
      // Rules that compare shown texts depend on number formats.
      const changesFormat = change.style !== undefined && before.style?.number !== undefined;
      if (change.style?.number !== undefined || changesFormat) effects.push(LAYOUT);
      if (changesAbout(change)) sheet.patchFormat(slot, aboutOf(change));
    }
    if (moves) {
      sheet.sortRows();
      effects.push(LAYOUT);
    }
    return { effects, inverse: undo.length ? [{ kind: 'change-rows', rows: undo.reverse() }] : [] };
  },
  words: ({ rows }, { count }) => [
    `${counted(count ?? rows.length, 'row')} ${rows.every(({ key }) => key !== undefined) ? 'moved' : 'changed'}`,
  ],
  size: ({ rows }) => rows.length,
  // A row in another role may be for others to fill in, or no longer: the visible content of its cells is sent again.
  restrict(operation, view, sheet) {
    const cells = operation.rows.flatMap(({ id, role }) => {
      const slot = role === undefined ? undefined : sheet.findSlot(id);
      if (slot === undefined) return [];
      return view.columns.map((column) => ({
        row: id,
        field: sheet.field(column).id,
        input: view.inputAt(column, slot),
      }));
    });
    return [operation, ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : [])];
  },
};

/** A row as a reader without rules gets it. */
export function visibleRow(
  { id, key, role, about }: Omit<StoredRow, 'cells'>,
  view: Visibility,
  sheet: SheetStore,
): StoredRow {
  const slot = sheet.findSlot(id);
  const cells = view.columns.flatMap((column) => {
    const input = slot === undefined ? '' : view.inputAt(column, slot);
    return input === '' ? [] : [[sheet.field(column).id, input] as const];
  });
  const sent = new Set(view.columns.map((column) => sheet.field(column).id));
  const { styles, ...rest } = about ?? {};
  const kept = Object.entries(styles ?? {}).filter(([field]) => sent.has(field));
  const format = { ...rest, ...(kept.length ? { styles: Object.fromEntries(kept) } : {}) };
  return { id, key, role, cells: Object.fromEntries(cells), ...(Object.keys(format).length ? { about: format } : {}) };
}
