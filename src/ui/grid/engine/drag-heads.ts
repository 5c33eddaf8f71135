import type { Area } from '../../../protocol/sheet-view';
import type { Geometry, Scroll } from './geometry';
import type { Hit } from './hit-test';

export type Axis = 'columns' | 'rows';

/**
 * The heads that a hit is on, if it is on those of whole fields or rows that are selected: then dragging moves these.
 */
export function selectedHeads(geometry: Geometry, hit: Hit, { left, top, right, bottom }: Area): Axis | null {
  const { columnCount, rowCount } = geometry;
  if (
    hit.kind === 'column' &&
    top === 0 &&
    bottom === rowCount - 1 &&
    hit.column >= left &&
    hit.column <= right &&
    right - left + 1 < columnCount
  )
    return 'columns';
  if (
    hit.kind === 'row' &&
    left === 0 &&
    right === columnCount - 1 &&
    hit.position >= top &&
    hit.position <= bottom &&
    bottom - top + 1 < rowCount
  )
    return 'rows';
  return null;
}

/**
 * Before which field or row something lands that is let go at a point: that under the point, or the next past its
 * middle.
 */
export function landingAt(
  geometry: Geometry,
  axis: Axis,
  { scroll, point }: { scroll: Scroll; point: { x: number; y: number } },
): number {
  if (axis === 'columns') {
    const x = point.x < geometry.frozenWidth ? point.x : point.x + scroll.left;
    const column = geometry.columnAt(x);
    return x > geometry.columnLeft(column) + geometry.columnWidth(column) / 2 ? column + 1 : column;
  }
  const y = point.y < geometry.frozenHeight ? point.y : point.y + scroll.top;
  const position = geometry.positionAt(y);
  return y > geometry.rowTop(position) + geometry.rowHeight(position) / 2 ? position + 1 : position;
}
