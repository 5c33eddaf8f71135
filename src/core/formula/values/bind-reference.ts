import { itemAt, lastItem } from '../../values/item-at';
import type { Sheet } from '../../sheet/sheet';
import { Area, FormulaError } from './formula-value';
import { isKept, type CellRef, type KeptRef, type ReferenceNode } from '../syntax/formula-tree';
import { positionAt, type BoundCell, type BoundReference, type FormulaContext, type EvalCursor } from './place';
import { readCell } from './read-cells';

/** A coordinate at a place: columns and rows count from 0, undefined where it is gone or off the sheet. */
type Coordinate = (place: EvalCursor) => number | undefined;

interface Corner {
  readonly column: Coordinate | null;
  readonly row: Coordinate | null;
}

/**
 * Where a formula was written, so that relative references move with the cell it is judged for. Without it references
 * mean the cells they name.
 */
export type WrittenAt = { readonly column: number; readonly position: number } | undefined;

/** Makes a reference ready for a sheet. One to a sheet that does not exist is `#REF!`. */
export function bindReference(node: ReferenceNode, context: FormulaContext, writtenAt: WrittenAt): BoundReference {
  const sheet = node.sheet === null ? context.sheet : context.findSheet(node.sheet);
  if (!sheet) return GONE;
  const corners = node.ends.map((end) => (isKept(end) ? keptCorner(end, sheet) : plainCorner(end, writtenAt)));
  const single =
    corners.length === 1 && itemAt(corners, 0).column && itemAt(corners, 0).row ? itemAt(corners, 0) : undefined;
  const end = itemAt(node.ends, 0);
  if (isKept(end) && end.row === 'records') return recordsOf(end, sheet);
  const areaAt = (place: EvalCursor): Area | FormulaError =>
    areaBetween(sheet, [itemAt(corners, 0), lastItem(corners)], place);
  const isFixed = node.ends.every((one) => isFixedEnd(one, writtenAt));
  if (!single) return { areaAt, cell: undefined, isFixed, scalarAt: () => FormulaError.value };
  const cell = singleCell(itemAt(node.ends, 0), single, { sheet, writtenAt });
  return {
    areaAt,
    isFixed,
    cell: sheet === context.sheet ? cell : undefined,
    scalarAt(place) {
      const column = single.column?.(place);
      const row = cell.slotAt(place);
      if (column === undefined || row === GONE_SLOT) return FormulaError.reference;
      const store = sheet.columns[column];
      return store && row >= 0 ? readCell(store, row) : null;
    },
  };
}

const GONE: BoundReference = {
  areaAt: () => FormulaError.reference,
  scalarAt: () => FormulaError.reference,
  cell: undefined,
  isFixed: true,
};
/** All records of a field, from the first to the last: what a label stands for where cells are wanted. */
function recordsOf({ field }: KeptRef, sheet: Sheet): BoundReference {
  const areaAt = (): Area | FormulaError => {
    const column = sheet.findColumn(field?.id ?? '');
    if (column === undefined) return FormulaError.reference;
    const { first, last } = sheet.recordSpan();
    // Where there are no records yet, a cell beyond the sheet: blank.
    const [top, bottom] = last < first ? [sheet.rowCount, sheet.rowCount] : [first, last];
    return new Area(sheet, { left: column, top, right: column, bottom });
  };
  return { areaAt, cell: undefined, isFixed: true, scalarAt: () => FormulaError.value };
}

/** Slot of a row beyond the sheet: blank. */
const NO_SLOT = -1;
/** Slot of a row that was removed or lies above the first. */
const GONE_SLOT = -2;

function singleCell(
  end: CellRef | KeptRef,
  corner: Corner,
  { sheet, writtenAt }: { sheet: Sheet; writtenAt: WrittenAt },
): BoundCell {
  if (isKept(end)) {
    const column = end.field ? sheet.findColumn(end.field.id) : undefined;
    const store = column === undefined ? undefined : sheet.columns[column];
    const { row } = end;
    return {
      storeAt: () => store,
      row: row === 'same' ? 'same' : 'fixed',
      slotAt:
        row === 'same'
          ? (place) => place.slot
          : () => (typeof row === 'object' ? (sheet.findSlot(row.id) ?? GONE_SLOT) : GONE_SLOT),
    };
  }
  const isFixedColumn = end.column !== null && (writtenAt === undefined || end.column.absolute);
  const fixed = isFixedColumn ? sheet.columns[end.column.at] : undefined;
  const isFixedRow = writtenAt === undefined || end.row?.absolute === true;
  const isSameRow = !isFixedRow && end.row?.at === writtenAt.position;
  return {
    storeAt: isFixedColumn ? () => fixed : (place) => sheet.columns[corner.column?.(place) ?? -1],
    row: isSameRow ? 'same' : isFixedRow ? 'fixed' : 'moving',
    slotAt: isSameRow
      ? (place) => place.slot
      : (place) => {
          const row = corner.row?.(place);
          return row === undefined ? GONE_SLOT : (sheet.order[row] ?? NO_SLOT);
        },
  };
}

function isFixedEnd(end: CellRef | KeptRef, writtenAt: WrittenAt): boolean {
  if (isKept(end)) return end.row !== 'same';
  return writtenAt === undefined || ((end.column?.absolute ?? true) && (end.row?.absolute ?? true));
}

function plainCorner({ column, row }: CellRef, writtenAt: WrittenAt): Corner {
  return {
    column: column && movable(column, (place) => place.column, writtenAt?.column),
    row: row && movable(row, positionAt, writtenAt?.position),
  };
}

function movable(
  { at, absolute }: { at: number; absolute: boolean },
  here: (place: EvalCursor) => number,
  writtenAt: number | undefined,
): Coordinate {
  if (absolute || writtenAt === undefined) return () => at;
  const offset = at - writtenAt;
  return (place) => {
    const moved = here(place) + offset;
    return moved < 0 ? undefined : moved;
  };
}

function keptCorner({ field, row }: KeptRef, sheet: Sheet): Corner {
  return { column: field && (() => sheet.findColumn(field.id)), row: keptRow(row, sheet) };
}

function keptRow(row: KeptRef['row'], sheet: Sheet): Coordinate | null {
  if (row === 'same') return positionAt;
  if (typeof row === 'string') return null;
  return () => {
    const slot = sheet.findSlot(row.id);
    return slot === undefined ? undefined : sheet.positionOf(slot);
  };
}

function areaBetween(sheet: Sheet, [one, other]: readonly [Corner, Corner], place: EvalCursor): Area | FormulaError {
  const left = one.column ? one.column(place) : 0;
  const right = other.column ? other.column(place) : Math.max(0, sheet.fields.length - 1);
  const top = one.row ? one.row(place) : 0;
  const bottom = other.row ? other.row(place) : Math.max(0, sheet.rowCount - 1);
  if (left === undefined || right === undefined || top === undefined || bottom === undefined)
    return FormulaError.reference;
  return new Area(sheet, {
    left: Math.min(left, right),
    top: Math.min(top, bottom),
    right: Math.max(left, right),
    bottom: Math.max(top, bottom),
  });
}
