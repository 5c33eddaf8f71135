import { useState, type PointerEvent } from 'react';
import type { CellPosition } from '../../core/sheet/cell-position';
import { useSession, useSessionState } from '../sheet/use-session';
import { isWholeColumns, selectedArea } from './engine/selection';
import type { Geometry, Scroll } from './engine/geometry';
import classes from './TouchHandles.module.css';

interface Props {
  readonly geometry: Geometry;
  /** Where the grid has come to rest. */
  readonly scroll: Scroll;
  /** The cell under a finger. */
  readonly cellAt: (event: PointerEvent) => CellPosition | null;
}

/** Two grips at the corners of the selection, by which a finger makes it larger or smaller. */
export function TouchHandles({ geometry, scroll, cellAt }: Props) {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  /** The corner across from the one that is held: it stays. */
  const [across, setAcross] = useState<CellPosition | null>(null);
  const area = selectedArea(selection);
  if (isWholeColumns(area, geometry)) return null;
  const first = { column: area.left, position: area.top };
  const last = { column: area.right, position: area.bottom };
  const corners = [
    { name: 'start', from: last, box: boxOf(geometry, first, scroll), end: 0 },
    { name: 'end', from: first, box: boxOf(geometry, last, scroll), end: 1 },
  ];
  return corners.map(({ name, from, box, end }) => (
    <span
      key={name}
      className={classes.grip}
      data-testid={`grip-${name}`}
      aria-hidden
      style={{ left: box.x + end * box.width, top: box.y + end * box.height }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        setAcross(from);
      }}
      onPointerMove={(event) => {
        if (!across) return;
        event.stopPropagation();
        const focus = cellAt(event);
        if (focus && !isAt(focus, session.get().selection.focus)) session.select({ anchor: across, focus });
      }}
      onClick={(event) => event.stopPropagation()}
      onLostPointerCapture={() => setAcross(null)}
    />
  ));
}

const isAt = (one: CellPosition, other: CellPosition): boolean =>
  one.column === other.column && one.position === other.position;

/** The place of a cell in the scrolled content; frozen parts move along with it. */
export function boxOf(geometry: Geometry, cell: CellPosition, scroll: Scroll) {
  const box = geometry.box(cell);
  return {
    ...box,
    x: cell.column < geometry.frozenColumns ? box.x + scroll.left : box.x,
    y: cell.position < geometry.frozenRows ? box.y + scroll.top : box.y,
  };
}
