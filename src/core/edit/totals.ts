import { keysOf } from '../values/typed-keys';
import { itemAt } from '../values/item-at';
import type { Operation, StoredRow } from '../sheet/change';
import type { FieldId, RowId } from '../sheet/ids';
import { keysAt } from '../sheet/layout/keys-at';
import { fieldFormat } from '../sheet/shown-cell';
import type { Sheet } from '../sheet/sheet';
import { TAG } from '../values/cell-value';
import type { Editor } from './editor';
import { rowsOf } from './rows';

const FUNCTIONS = {
  sum: 'SUM',
  average: 'AVERAGE',
  count: 'COUNT',
  least: 'MIN',
  greatest: 'MAX',
  median: 'MEDIAN',
} as const;
export type TotalFunction = keyof typeof FUNCTIONS;
export const TOTAL_FUNCTIONS = keysOf(FUNCTIONS);

/** What stands beside the totals of a row that is made for them. */
export const TOTAL_WORD = 'Total';

/** The formula of a total of a field over all its records, now and later. */
export const totalOf = (field: FieldId, is: TotalFunction): string => `=${FUNCTIONS[is]}(⟦${field}~*⟧)`;

/**
 * A new row of totals under the last row that is not blank, of rows from the top. Blank rows at the end make way, since
 * what a total covers must not reach beyond it.
 */
export function insertTotals(
  rows: readonly { readonly id: RowId; readonly key: string }[],
  last: number,
  { id, cells }: Pick<StoredRow, 'id' | 'cells'>,
): Operation[] {
  const blank = rows.slice(last + 1).map((row) => row.id);
  const key = itemAt(keysAt(rows, rows.length, 1), 0);
  return [
    ...(blank.length > 0 ? [{ kind: 'remove-rows' as const, rows: blank }] : []),
    { kind: 'insert-rows', rows: [{ id, key, role: 'total', cells }] },
  ];
}

/** Puts totals into the last row of totals, or into a new one where there is none. */
function putTotals(sheet: Sheet, inputs: Readonly<Record<FieldId, string>>, newId: () => string): Operation[] {
  const last = sheet.order.findLast((slot) => sheet.roleAt(slot) === 'total');
  if (last !== undefined) {
    const row = sheet.rowId(last);
    return [{ kind: 'set-cells', cells: Object.entries(inputs).map(([field, input]) => ({ row, field, input })) }];
  }
  return insertTotals(rowsOf(sheet), sheet.lastFilledRow(), { id: newId(), cells: inputs });
}

/** A total of fields over all their records, now and later. */
export const setTotal: Editor<{ readonly left: number; readonly right: number; readonly is: TotalFunction | null }> = {
  operations(sheet, { left, right, is }, { newId }) {
    const hasTotals = sheet.order.some((slot) => sheet.roleAt(slot) === 'total');
    if (is === null && !hasTotals) return [];
    const fields = sheet.fields.slice(left, right + 1);
    return putTotals(
      sheet,
      Object.fromEntries(fields.map(({ id }) => [id, is === null ? '' : totalOf(id, is)])),
      newId,
    );
  },
  says: ({ is }) => (is === null ? 'no total' : `total: ${is}`),
};

/** A row of totals: sums of the fields of numbers, averages of those of percentages, beside the word for it. */
export const addTotals: Editor<object> = {
  operations(sheet, _edit, { newId }) {
    const kinds = sheet.fields.map((_field, column) => totalFor(sheet, column));
    const label = sheet.fields.findIndex(
      (_field, column) => kinds[column] === undefined && sheet.labelOf(column) !== undefined,
    );
    const inputs = sheet.fields.flatMap(({ id }, column) => {
      const is = kinds[column];
      return is ? [[id, totalOf(id, is)] as const] : column === label ? [[id, TOTAL_WORD] as const] : [];
    });
    return kinds.some((is) => is !== undefined) ? putTotals(sheet, Object.fromEntries(inputs), newId) : [];
  },
  says: () => 'add totals',
};

/** The total that suits a field: none where most of what its records hold is no number. */
function totalFor(sheet: Sheet, column: number): TotalFunction | undefined {
  const { tags } = sheet.column(column);
  const filled = sheet.order.filter((slot) => sheet.roleAt(slot) === 'record' && tags[slot] !== TAG.blank);
  const numbers = filled.filter((slot) => tags[slot] === TAG.number).length;
  if (numbers === 0 || numbers * 2 < filled.length) return undefined;
  return fieldFormat(sheet, column)?.includes('%') ? 'average' : 'sum';
}
