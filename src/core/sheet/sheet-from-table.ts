import { generateNKeysBetween } from 'fractional-indexing';
import type { Table } from '../values/table';
import { newField } from './field';
import type { RowId } from './ids';
import { Sheet } from './sheet';
import type { SheetSettings } from './sheet-settings';

/**
 * A sheet of the rows of a file: the first is the header unless `header` is false, the rest are records. Ids are made
 * so that they cannot be mistaken for labels.
 */
export function sheetFromTable(table: Table, settings: SheetSettings & { header: boolean }): Sheet {
  const keys = generateNKeysBetween(null, null, table.width);
  const fields = keys.map((key, column) => newField(`\0field ${column}`, key));
  const made = new Sheet(fields, settings);
  table.rows.forEach((cells, position) => {
    const role = position === 0 && settings.header ? 'header' : 'record';
    const slot = made.appendRow({ id: `\0row ${position}` as RowId, key: '', role });
    cells.forEach((input, column) => made.column(column).set(slot, input, role === 'header'));
  });
  return made;
}
