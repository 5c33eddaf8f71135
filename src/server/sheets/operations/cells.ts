import type { CellInput, CellStyle, Operation } from '../../../core/sheet/change';
import type { FieldId, RowId } from '../../../core/sheet/ids';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import type { HeldSheet } from '../held-sheet';
import { checkFields } from './check-fields';
import type { StoredOperation } from './stored-operation';

export async function setCells(sheet: HeldSheet, cells: readonly CellInput[]): Promise<Operation[]> {
  const known = await checkFields(
    sheet,
    cells.filter(({ was }) => was === undefined).map((cell) => cell.field),
  );
  const rows = await sheet.rowsWith(cells.map(({ row }) => row));
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
  return inverse.length ? [{ kind: 'set-cells', cells: inverse.reverse() }] : [];
}

export async function setStyles(sheet: HeldSheet, cells: readonly CellStyle[]): Promise<Operation[]> {
  await checkFields(
    sheet,
    cells.map((cell) => cell.field),
  );
  const rows = await sheet.rowsWith(cells.map(({ row }) => row));
  const inverse: CellStyle[] = [];
  for (const { row, field, style } of cells) {
    const { styles = {}, ...about } = rows.get(row).about ?? {};
    inverse.push({ row, field, style: styles[field] ?? null });
    const { [field]: _, ...others } = styles;
    rows.putAbout(row, { ...about, styles: style ? { ...others, [field]: style } : others });
  }
  return [{ kind: 'set-styles', cells: inverse.reverse() }];
}

/** Entries are guarded by `was` where they are undone, and styles are set again: see take-back.ts. */
export const storedCells: StoredOperation<OperationOf<'set-cells'>> = {
  apply: (sheet, { cells }) => setCells(sheet, cells),
  unchangedSince: (_, __, { operation }) => Promise.resolve([operation]),
};

export const storedStyles: StoredOperation<OperationOf<'set-styles'>> = {
  apply: (sheet, { cells }) => setStyles(sheet, cells),
  unchangedSince: (_, __, { operation }) => Promise.resolve([operation]),
};
