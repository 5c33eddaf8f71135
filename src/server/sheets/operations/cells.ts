import type { CellInput, CellStyle, Operation } from '../../../core/sheet/change';
import type { FieldId, RowId, SheetId } from '../../../core/sheet/ids';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import type { Transaction } from '../../database';
import { findRows, updateRows } from '../../sql/row';
import { EditedRows } from '../edited-rows';
import { checkFields } from './check-fields';
import type { StoredOperation } from './stored-operation';

export async function setCells(sql: Transaction, sheet: SheetId, cells: readonly CellInput[]): Promise<Operation[]> {
  const known = await checkFields(
    sql,
    sheet,
    cells.filter(({ was }) => was === undefined).map((cell) => cell.field),
  );
  const rows = new EditedRows(await findRows(sql, sheet, rowsOf(cells)));
  const holds = (row: RowId, field: FieldId): string | undefined => {
    const found = rows.find(row);
    return found && known.has(field) ? (found.cells[field] ?? '') : undefined;
  };
  const inverse: CellInput[] = [];
  for (const { row, field, input, was } of cells) {
    // Side effects of a change never make it fail.
    if (was !== undefined && holds(row, field) !== was) continue;
    const { cells: inputs } = rows.get(row);
    inverse.push({ row, field, input: inputs[field] ?? '', ...(was === undefined ? {} : { was: input }) });
    const { [field]: _, ...others } = inputs;
    rows.put(row, { cells: input === '' ? others : { ...others, [field]: input } });
  }
  await updateRows(sql, sheet, rows.edited());
  return inverse.length ? [{ kind: 'set-cells', cells: inverse.reverse() }] : [];
}

export async function setStyles(sql: Transaction, sheet: SheetId, cells: readonly CellStyle[]): Promise<Operation[]> {
  await checkFields(
    sql,
    sheet,
    cells.map((cell) => cell.field),
  );
  const rows = new EditedRows(await findRows(sql, sheet, rowsOf(cells)));
  const inverse: CellStyle[] = [];
  for (const { row, field, style } of cells) {
    const { styles = {}, ...about } = rows.get(row).about ?? {};
    inverse.push({ row, field, style: styles[field] ?? null });
    const { [field]: _, ...others } = styles;
    rows.putAbout(row, { ...about, styles: style ? { ...others, [field]: style } : others });
  }
  await updateRows(sql, sheet, rows.edited());
  return [{ kind: 'set-styles', cells: inverse.reverse() }];
}

const rowsOf = (cells: readonly { readonly row: RowId }[]): RowId[] => Array.from(new Set(cells.map(({ row }) => row)));

/** Entries are guarded by `was` where they are undone, and styles are set again: see take-back.ts. */
export const storedCells: StoredOperation<OperationOf<'set-cells'>> = {
  apply: (tx, sheet, { cells }) => setCells(tx, sheet, cells),
  unchangedSince: (_, __, { operation }) => Promise.resolve([operation]),
};

export const storedStyles: StoredOperation<OperationOf<'set-styles'>> = {
  apply: (tx, sheet, { cells }) => setStyles(tx, sheet, cells),
  unchangedSince: (_, __, { operation }) => Promise.resolve([operation]),
};
