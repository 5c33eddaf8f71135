import type { Area } from '../../protocol/sheet-view';
import type { Geometry } from './engine/geometry';

/**
 * How far beyond the view the engine is asked to look, in rows and columns: enough for a few frames of fast scrolling.
 */
const AHEAD_ROWS = 60;
const AHEAD_COLUMNS = 8;
/** Ask again once the view comes this close to the edge of what was asked. */
const NEAR_ROWS = 25;

/** The view with a margin all around, cut to the sheet; with what is frozen at the left, all from there on. */
export function askedArea(visible: Area, { rowCount, columnCount, frozenColumns }: Geometry): Area {
  return {
    left: frozenColumns > 0 ? 0 : Math.max(0, visible.left - AHEAD_COLUMNS),
    right: Math.min(columnCount - 1, visible.right + AHEAD_COLUMNS),
    top: Math.max(0, visible.top - AHEAD_ROWS),
    bottom: Math.min(rowCount - 1, visible.bottom + AHEAD_ROWS),
  };
}

/** True while the view is well within what was asked, or at the sheet's own edge. */
export function isCovered(visible: Area, asked: Area): boolean {
  const above = asked.top === 0 || visible.top - asked.top >= NEAR_ROWS;
  const below = visible.bottom + NEAR_ROWS <= asked.bottom || asked.bottom - visible.bottom >= AHEAD_ROWS;
  return (
    above && (below || visible.bottom === asked.bottom) && visible.left >= asked.left && visible.right <= asked.right
  );
}
