import { GUTTER_PX, HEAD_PX, type Cell, type Geometry, type Scroll } from './geometry';

export type Hit =
  | { readonly kind: 'cell'; readonly cell: Cell }
  | { readonly kind: 'column'; readonly column: number }
  | { readonly kind: 'row'; readonly position: number }
  | { readonly kind: 'corner' }
  | { readonly kind: 'outside' };

/** What lies under a point of the view. */
export function hitTest(geometry: Geometry, scroll: Scroll, point: { x: number; y: number }): Hit {
  const x = point.x + scroll.left;
  const y = point.y < geometry.frozenHeight ? point.y : point.y + scroll.top;
  const inGutter = point.x < GUTTER_PX;
  if (inGutter && point.y < HEAD_PX) return { kind: 'corner' };
  if (y >= geometry.height) return { kind: 'outside' };
  if (inGutter) return { kind: 'row', position: geometry.positionAt(y) };
  if (x >= geometry.width) return { kind: 'outside' };
  if (point.y < HEAD_PX) return { kind: 'column', column: geometry.columnAt(x) };
  return { kind: 'cell', cell: { column: geometry.columnAt(x), position: geometry.positionAt(y) } };
}
