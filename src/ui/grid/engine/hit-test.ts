import type { CellPosition } from '../../../core/sheet/cell-position';
import type { Area } from '../../../protocol/sheet-view';
import { HEAD_PX, type Box, type Geometry, type Scroll } from './geometry';

export type Hit =
  | { readonly kind: 'cell'; readonly cell: CellPosition }
  | { readonly kind: 'column'; readonly column: number }
  /** The right edge of a column's head, or the lower edge of a row's: what sizes them. */
  | { readonly kind: 'column-edge'; readonly column: number }
  | { readonly kind: 'row'; readonly position: number }
  | { readonly kind: 'row-edge'; readonly position: number }
  /** The corner of the selection by which it is filled on. */
  | { readonly kind: 'handle' }
  | { readonly kind: 'corner' }
  | { readonly kind: 'outside' };

/** How near to an edge a pointer must come. */
const EDGE_PX = 4;
const HANDLE_PX = 7;
/** More than the handle shows can be grasped. */
const GRASP_PX = 3;

/** Where the handle of a selection is in the view. */
export function handleBox(geometry: Geometry, selected: Area, scroll: Scroll): Box {
  const { x, y, width, height } = geometry.boxInView(geometry.shownArea(selected), scroll);
  return { x: Math.round(x + width) - 5, y: Math.round(y + height) - 5, width: HANDLE_PX, height: HANDLE_PX };
}

/** The hit under a point of the view. With a selection, its handle too. */
export function hitTest(
  geometry: Geometry,
  { scroll, selected }: { scroll: Scroll; selected: Area | null },
  point: { x: number; y: number },
): Hit {
  if (selected && point.x > geometry.gutterWidth && point.y > HEAD_PX) {
    const box = handleBox(geometry, selected, scroll);
    const near = (at: number, from: number, size: number): boolean =>
      at >= from - GRASP_PX && at <= from + size + GRASP_PX;
    if (near(point.x, box.x, box.width) && near(point.y, box.y, box.height)) return { kind: 'handle' };
  }
  const x = point.x < geometry.frozenWidth ? point.x : point.x + scroll.left;
  const y = point.y < geometry.frozenHeight ? point.y : point.y + scroll.top;
  const inGutter = point.x < geometry.gutterWidth;
  if (inGutter && point.y < HEAD_PX) return { kind: 'corner' };
  if (y >= geometry.height) return { kind: 'outside' };
  if (inGutter) return inRows(geometry, y);
  if (point.y < HEAD_PX) return inColumns(geometry, x);
  if (x >= geometry.width) return { kind: 'outside' };
  const cell = { column: geometry.columnAt(x), position: geometry.positionAt(y) };
  const merged = geometry.mergeAt(cell);
  return { kind: 'cell', cell: merged ? { column: merged.left, position: merged.top } : cell };
}

function inColumns(geometry: Geometry, x: number): Hit {
  const column = geometry.columnAt(Math.min(x, geometry.width - 1));
  if (geometry.columnLeft(column + 1) - x <= EDGE_PX) return { kind: 'column-edge', column };
  if (x >= geometry.width) return { kind: 'outside' };
  if (x - geometry.columnLeft(column) < EDGE_PX && column > 0) return { kind: 'column-edge', column: column - 1 };
  return { kind: 'column', column };
}

function inRows(geometry: Geometry, y: number): Hit {
  const position = geometry.positionAt(y);
  if (geometry.rowTop(position + 1) - y <= EDGE_PX) return { kind: 'row-edge', position };
  return { kind: 'row', position };
}
