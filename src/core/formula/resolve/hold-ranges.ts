import { itemAt } from '../../values/item-at';
import type { CellInput, Operation } from '../../sheet/change';
import {
  layoutAfter,
  layoutMove,
  moveSpan,
  type AxisMove,
  type Layout,
  type LayoutMove,
} from '../../sheet/layout/layout-move';
import type { RowId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import { isKept, type KeptRef, type ReferenceNode } from '../syntax/formula-tree';
import { keptText, referenceText } from '../syntax/print-formula';
import { rewriteReferences } from '../syntax/rewrite-references';

/** A sheet, and how its rows and fields will stand. */
interface Ahead {
  readonly sheet: Sheet;
  readonly move: LayoutMove;
  readonly after: Layout;
}

/**
 * The rewritten formulas of cells when rows or fields are about to be removed or moved, so that the ranges they name go
 * on to cover what remains, and what is inserted between. Their ends are kept by id: an end that moves elsewhere would
 * stretch the range. A range that is removed as a whole stays, and is `#REF!`. A concurrent edit of the cell wins.
 */
export function holdRanges(sheet: Sheet, operations: readonly Operation[]): CellInput[] {
  const moves = operations.some(
    ({ kind }) => kind === 'remove-rows' || kind === 'remove-fields' || kind === 'change-rows' || kind === 'put-fields',
  );
  const move =
    moves && sheet.columns.some(({ formulas }) => formulas.count() > 0) ? layoutMove(sheet, operations) : null;
  if (!move) return [];
  const ahead: Ahead = { sheet, move, after: layoutAfter(sheet, operations) };
  const known = new Map<string, string>();
  return sheet.columns.flatMap((store, column) => {
    const cells: CellInput[] = [];
    if (move.column.to(column) === undefined) return cells;
    store.formulas.forEach((slot) => {
      const input = store.inputAt(slot);
      if (!input.includes('⟧:⟦') || move.row.to(sheet.positionOf(slot)) === undefined) return;
      // A range that ends in the formula's own row is another one in each row.
      const key = OWN_ROW.test(input) ? `${slot} ${input}` : input;
      let held = known.get(key);
      if (held === undefined) known.set(key, (held = rewriteReferences(input, (node) => hold(node, slot, ahead))));
      if (held !== input) cells.push({ ...sheet.cellIds(column, slot), input: held, was: input });
    });
    return cells;
  });
}

const OWN_ROW = /⟦[^~⟧]*⟧/;

function hold(node: ReferenceNode, slot: number, { sheet, move, after }: Ahead): string {
  const [one, other] = node.ends;
  if (!one || !other || !isKept(one) || !isKept(other)) return referenceText(node);
  const own = sheet.positionOf(slot);
  // A range up to the formula's own row goes along with it, such as a sum so far when records are sorted.
  if ((one.row === 'same' || other.row === 'same') && move.row.isMoved(own)) return referenceText(node);
  const positionOf = ({ row }: KeptRef): number =>
    row === 'same' ? own : typeof row === 'object' ? sheet.positionOf(sheet.findSlot(row.id) ?? -1) : NaN;
  const columnOf = ({ field }: KeptRef): number => sheet.findColumn(field?.id ?? '') ?? NaN;
  const rows = heldEnds(positionOf(one), positionOf(other), move.row);
  const columns = heldEnds(columnOf(one), columnOf(other), move.column);
  return [one, other]
    .map((end, at) => {
      const field = columns && after.fields[itemAt(columns, at)];
      return keptText({
        field: field === undefined ? end.field : { ...end.field!, id: field },
        row: heldRow(end.row, rows && after.rows[itemAt(rows, at)], sheet.rowId(slot)),
      });
    })
    .join(':');
}

function heldRow(row: KeptRef['row'], id: RowId | undefined, own: RowId): KeptRef['row'] {
  if (id === undefined || row === 'all' || row === 'records') return row;
  if (row === 'same') return id === own ? 'same' : { id, absolute: false };
  return { ...row, id };
}

/** New positions of two ends, in their order; undefined where one of them is gone. */
function heldEnds(one: number, other: number, move: AxisMove): readonly [number, number] | undefined {
  if (!(one >= 0) || !(other >= 0)) return undefined;
  const span = moveSpan([Math.min(one, other), Math.max(one, other)], move);
  return span && (one <= other ? span : [span[1], span[0]]);
}
