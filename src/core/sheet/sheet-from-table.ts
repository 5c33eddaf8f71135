import type { Table } from '../exchange/table';
import type { FieldId, RowId } from './ids';
import { Sheet, type SheetSettings } from './sheet';

/**
 * A sheet of the rows of a file: the first is the header unless `header` is false, the rest are records. Ids are made so
 * that they cannot be mistaken for labels.
 */
export function sheetFromTable(table: Table, settings: SheetSettings & { header: boolean }): Sheet {
  const fields = Array.from({ length: table.width }, (_, column) => ({ id: `\0field ${column}` as FieldId, widthPx: 100, format: null, unit: null }));
  const made = new Sheet(fields, settings);
  table.rows.forEach((cells, position) => {
    const role = position === 0 && settings.header ? 'header' : 'record';
    const slot = made.appendRow({ id: `\0row ${position}` as RowId, key: '', role });
    cells.forEach((input, column) => made.columns[column]!.set(slot, input, role === 'header'));
  });
  return made;
}
