import { BitSet } from '../../values/bit-set';
import { GONE, parseRanges } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { missingField } from '../terms';
import type { Paints, Problem, Reads } from '../terms';
import { TAG } from '../../values/cell-value';

/** The cells of one column that a rule reads. */
export interface ReadColumn {
  readonly column: number;
  /** The slots read. For fields it is the sheet's own set of rows with these roles, which grows with the sheet. */
  readonly slots: BitSet;
}

/**
 * Finds the cells that a rule reads: by field, every row with the roles wanted; by range, just those cells that exist.
 */
export function readCells(
  reads: Reads,
  sheet: Sheet,
  spend: (cells: number) => void = () => {},
): ReadColumn[] | Problem {
  if ('cells' in reads) return cellsInRanges(reads.cells, sheet, spend);
  const slots = sheet.slotsWithRoles(reads.roles ?? ['record']);
  const columns = new Set<number>();
  for (const field of reads.fields) {
    const column = sheet.findColumn(field);
    if (column === undefined) return missingField(field);
    columns.add(column);
  }
  return [...columns].sort((a, b) => a - b).map((column) => ({ column, slots }));
}

function cellsInRanges(text: string, sheet: Sheet, spend: (cells: number) => void): ReadColumn[] | Problem {
  if (text === GONE) return { code: 'bad-reach', message: 'the cells that it read have been deleted' };
  const ranges = parseRanges(text);
  if (!ranges) return { code: 'bad-reach', message: `"${text}" is not a list of ranges such as B2:E7 G2:G7` };
  const byColumn = new Map<number, BitSet>();
  for (const range of ranges) {
    const [right, bottom] = [
      Math.min(range.right, sheet.fields.length - 1),
      Math.min(range.bottom, sheet.rowCount - 1),
    ];
    spend(1 + Math.max(0, right - range.left + 1) * Math.max(0, bottom - range.top + 1));
    for (let column = range.left; column <= right; column++) {
      const slots = byColumn.get(column) ?? new BitSet();
      slots.fit(sheet.slotCount);
      byColumn.set(column, slots);
      for (let position = range.top; position <= bottom; position++) slots.set(sheet.slotAt(position), true);
    }
  }
  return [...byColumn].sort(([a], [b]) => a - b).map(([column, slots]) => ({ column, slots }));
}

/** Whether a column is part of the records: it has a label, or a cell with content. */
export const isInUse = (sheet: Sheet, column: number): boolean => {
  if (sheet.labelOf(column) !== undefined) return true;
  const { tags } = sheet.column(column);
  return sheet.order.some((slot) => tags[slot] !== TAG.blank);
};

/** Which columns a rule paints, given those it reads: `cell` paints where it reads, `record` what is in use. */
export function paintedColumns(paints: Paints, read: readonly ReadColumn[], sheet: Sheet): number[] | Problem {
  if (paints === 'cell') return read.map(({ column }) => column);
  if (paints === 'record')
    return sheet.fields.flatMap((_, column) =>
      read.some((each) => each.column === column) || isInUse(sheet, column) ? [column] : [],
    );
  const columns: number[] = [];
  for (const field of paints.fields) {
    const column = sheet.findColumn(field);
    if (column === undefined) return missingField(field);
    columns.push(column);
  }
  return [...new Set(columns)];
}
