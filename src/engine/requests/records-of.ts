import { recordName } from '../../core/rules/explain/record-name';
import type { RowId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';

/** The records from the top, up to a number, each with its name. */
export const recordsOf = (sheet: Sheet, most: number): { row: RowId; name: string }[] =>
  sheet.order
    .filter((slot) => sheet.roleAt(slot) === 'record')
    .slice(0, most)
    .map((slot) => ({ row: sheet.rowId(slot), name: recordName(sheet, slot, new Set()) }));
