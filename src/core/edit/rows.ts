import { itemAt } from '../values/item-at';
import type { StoredRow } from '../sheet/change';
import { keysAt } from '../sheet/layout/keys-at';
import { layoutAfter } from '../sheet/layout/layout-move';
import type { RowRole } from '../sheet/row-role';
import type { Sheet } from '../sheet/sheet';
import { shownAt } from '../sheet/shown-cell';
import { foldText } from '../values/fold-text';
import { copiedInput } from './copied-input';
import { countWords, type Editor } from './editor';

interface Rows {
  readonly top: number;
  readonly bottom: number;
}

export const rowsOf = (sheet: Sheet): { id: string; key: string }[] =>
  sheet.order.map((slot) => ({ id: sheet.rowId(slot), key: sheet.rowKey(slot) }));
const idsIn = (sheet: Sheet, { top, bottom }: Rows): string[] =>
  sheet.order.slice(top, bottom + 1).map((slot) => sheet.rowId(slot));
const countOf = ({ top, bottom }: Rows): number => bottom - top + 1;

/** New rows before a place. Above the header they are titles, elsewhere records. */
export const insertRows: Editor<{ readonly at: number; readonly count: number }> = {
  operations(sheet, { at, count }, { newId }) {
    const header = sheet.order.findIndex((slot) => sheet.roleAt(slot) === 'header');
    const role: RowRole = at <= header ? 'title' : 'record';
    const rows = keysAt(rowsOf(sheet), at, count).map((key): StoredRow => ({ id: newId(), key, role, cells: {} }));
    return [{ kind: 'insert-rows', rows }];
  },
  says: ({ count }) => `insert ${countWords(count, 'row')}`,
};

export const removeRows: Editor<Rows> = {
  operations: (sheet, rows) => [{ kind: 'remove-rows', rows: idsIn(sheet, rows) }],
  says: (rows) => `delete ${countWords(countOf(rows), 'row')}`,
};

/** The records that hold the same as one above them, in whatever case and spaces; blank ones do not count. */
export function duplicateRecords(sheet: Sheet): readonly string[] {
  const seen = new Set<string>();
  return sheet.order.flatMap((slot) => {
    if (sheet.roleAt(slot) !== 'record') return [];
    const texts = sheet.fields.map((_, column) => foldText(shownAt(sheet, column, slot)));
    if (texts.every((text) => text === '')) return [];
    const record = JSON.stringify(texts);
    if (seen.has(record)) return [sheet.rowId(slot)];
    seen.add(record);
    return [];
  });
}

export const removeDuplicates: Editor<object> = {
  operations(sheet) {
    const rows = duplicateRecords(sheet);
    return rows.length > 0 ? [{ kind: 'remove-rows', rows }] : [];
  },
  says: () => 'remove duplicates',
};

/** Moves rows so that they stand before the row that is at a place now. */
export const moveRows: Editor<Rows & { readonly to: number }> = {
  operations(sheet, { top, bottom, to }) {
    if (to >= top && to <= bottom + 1) return [];
    const rows = rowsOf(sheet);
    const moving = rows.slice(top, bottom + 1);
    const rest = rows.toSpliced(top, moving.length);
    const keys = keysAt(rest, to > bottom ? to - moving.length : to, moving.length);
    return [{ kind: 'change-rows', rows: moving.map(({ id }, at) => ({ id, key: itemAt(keys, at) })) }];
  },
  says: (rows) => `move ${countWords(countOf(rows), 'row')}`,
};

/** The same rows once more, below. Formulas read from where the copies stand. */
export const duplicateRows: Editor<Rows> = {
  operations(sheet, { top, bottom }, { newId }) {
    const slots = sheet.order.slice(top, bottom + 1);
    const keys = keysAt(rowsOf(sheet), bottom + 1, slots.length);
    const rows = slots.map((slot, at): StoredRow => ({ ...sheet.storedRow(slot), id: newId(), key: itemAt(keys, at) }));
    const places = layoutAfter(sheet, [{ kind: 'insert-rows', rows }]);
    const shifted = rows.map((row, at): StoredRow => {
      const cells = Object.entries(row.cells).map(([field, input]) => [
        field,
        copiedInput(input, {
          sheet,
          slot: itemAt(slots, at),
          by: { columns: 0, rows: slots.length },
          places,
          row: row.id,
        }),
      ]);
      return { ...row, cells: Object.fromEntries(cells) };
    });
    return [{ kind: 'insert-rows', rows: shifted }];
  },
  says: (rows) => `duplicate ${countWords(countOf(rows), 'row')}`,
};

export const setRole: Editor<Rows & { readonly role: RowRole }> = {
  operations(sheet, { role, ...rows }) {
    const changed = sheet.order.slice(rows.top, rows.bottom + 1).filter((slot) => sheet.roleAt(slot) !== role);
    return changed.length
      ? [{ kind: 'change-rows', rows: changed.map((slot) => ({ id: sheet.rowId(slot), role })) }]
      : [];
  },
  says: ({ role, ...rows }) => `${countWords(countOf(rows), 'row')} as ${role}`,
};

/** How high rows are; null for as high as others. */
export const setHeight: Editor<Rows & { readonly heightPx: number | null }> = {
  operations: (sheet, { heightPx, ...rows }) => [
    {
      kind: 'change-rows',
      rows: idsIn(sheet, rows).map((id) => ({
        id,
        heightPx: heightPx === null ? null : Math.max(16, Math.min(1000, Math.round(heightPx))),
      })),
    },
  ],
  says: ({ heightPx: _, ...rows }) => `height of ${countWords(countOf(rows), 'row')}`,
};

/** Rows stand this many levels deep at most. */
export const DEEPEST_LEVEL = 8;

/** Indents rows one level, beneath those above them, or outdents them. */
export const shiftLevel: Editor<Rows & { readonly by: 1 | -1 }> = {
  operations(sheet, { by, ...rows }) {
    const changed = sheet.order.slice(rows.top, rows.bottom + 1).flatMap((slot) => {
      const level = sheet.rowFormat(slot).level ?? 0;
      const next = Math.max(0, Math.min(DEEPEST_LEVEL, level + by));
      return next === level ? [] : [{ id: sheet.rowId(slot), level: next === 0 ? null : next }];
    });
    return changed.length ? [{ kind: 'change-rows', rows: changed }] : [];
  },
  says: ({ by, ...rows }) => `${by > 0 ? 'indent' : 'outdent'} ${countWords(countOf(rows), 'row')}`,
};
