import { entryOf } from '../../core/values/entry-of';
import type { Area, Selection } from '../../protocol/sheet-view';
import type { Session } from '../sheet/session';
import { landingAt, type Axis } from './engine/drag-heads';
import type { Geometry, Scroll } from './engine/geometry';
import { hitTest, type Hit } from './engine/hit-test';
import { isWholeColumns, selectedArea } from './engine/selection';
import { selectHit } from './select-hit';

/** The drag of a pointer that is held down. */
export type Drag =
  | { readonly kind: 'select' }
  /** Cells go into the formula that is being typed. */
  | { readonly kind: 'point' }
  /** Over the letters or numbers: selects more of them. */
  | { readonly kind: 'heads'; readonly axis: Axis }
  /** Whole fields or rows that were selected go elsewhere. */
  | { readonly kind: 'move'; readonly axis: Axis }
  | { readonly kind: 'fill'; readonly from: Area }
  | { readonly kind: 'width'; readonly column: number; readonly grabbedPx: number }
  | { readonly kind: 'height'; readonly position: number; readonly grabbedPx: number };

/** The result of a drag, before it is released. */
export type Preview =
  | { readonly kind: 'fill'; readonly to: Area }
  | { readonly kind: 'move'; readonly axis: Axis; readonly to: number }
  | { readonly kind: 'width'; readonly column: number; readonly widthPx: number }
  | { readonly kind: 'height'; readonly position: number; readonly heightPx: number };

/** The least width of a field and height of a row that a drag gives, in pixels. */
const MIN_WIDTH_PX = 24;
const MIN_HEIGHT_PX = 16;

export interface DragSurroundings {
  readonly session: Session;
  readonly geometry: Geometry;
  readonly scroll: Scroll;
  /** The pointer, in pixels from the corner of the view. */
  readonly point: { readonly x: number; readonly y: number };
  readonly reveal: (selection: Selection) => void;
}

type DragOf<K extends Drag['kind']> = Extract<Drag, { readonly kind: K }>;

/** The pointer has moved: acts at once, or gives the preview of what its release will do. */
const MOVES: { readonly [K in Drag['kind']]: (drag: DragOf<K>, around: DragSurroundings) => Preview | undefined } = {
  width: ({ column, grabbedPx }, { point }) => ({
    kind: 'width',
    column,
    widthPx: Math.max(MIN_WIDTH_PX, point.x - grabbedPx),
  }),
  height: ({ position, grabbedPx }, { point }) => ({
    kind: 'height',
    position,
    heightPx: Math.max(MIN_HEIGHT_PX, point.y - grabbedPx),
  }),
  move: ({ axis }, { geometry, scroll, point }) => ({
    kind: 'move',
    axis,
    to: landingAt(geometry, axis, { scroll, point }),
  }),
  heads({ axis }, around) {
    const hit = hitUnder(around);
    if (hit.kind === (axis === 'columns' ? 'column' : 'row')) selectHit(hit, { shiftKey: true }, around);
    return undefined;
  },
  point(_, around) {
    const hit = hitUnder(around);
    if (hit.kind === 'cell') around.session.pointing.at(hit.cell, true);
    return undefined;
  },
  fill({ from }, around) {
    const hit = hitUnder(around);
    return hit.kind === 'cell' ? { kind: 'fill', to: filledTo(from, hit.cell) } : undefined;
  },
  select(_, around) {
    const hit = hitUnder(around);
    const { selection } = around.session.get();
    const { column, position } = selection.focus;
    if (hit.kind === 'cell' && (hit.cell.column !== column || hit.cell.position !== position))
      around.reveal({ ...selection, focus: hit.cell });
    return undefined;
  },
};

const hitUnder = ({ geometry, scroll, point }: DragSurroundings): Hit =>
  hitTest(geometry, { scroll, selected: null }, point);

export function moveDrag(drag: Drag, around: DragSurroundings): Preview | undefined {
  // The name pairs each drag with what it does.
  const move = entryOf<(drag: Drag, around: DragSurroundings) => Preview | undefined>(MOVES, drag.kind);
  return move(drag, around);
}

/** Begins the drag of what was pressed; null where it cannot be dragged. */
export function beginDrag(
  hit: Hit,
  { session, geometry, point }: Pick<DragSurroundings, 'session' | 'geometry' | 'point'>,
): Drag | null {
  switch (hit.kind) {
    case 'cell':
      return { kind: 'select' };
    case 'handle':
      return { kind: 'fill', from: selectedArea(session.get().selection) };
    case 'column-edge':
      return { kind: 'width', column: hit.column, grabbedPx: point.x - geometry.columnWidth(hit.column) };
    case 'row-edge':
      return { kind: 'height', position: hit.position, grabbedPx: point.y - geometry.rowHeight(hit.position) };
    case 'column':
      return { kind: 'heads', axis: 'columns' };
    case 'row':
      return { kind: 'heads', axis: 'rows' };
    default:
      return null;
  }
}

/** Carries out what a drag showed. An edge among several selected fields or rows sizes all of them. */
export function releaseDrag(
  drag: Drag,
  preview: Preview,
  { session, geometry }: Pick<DragSurroundings, 'session' | 'geometry'>,
): void {
  if (drag.kind === 'fill' && preview.kind === 'fill') void session.actions.fill(drag.from, preview.to);
  if (preview.kind === 'move') void session.actions.moveTo(preview.axis, preview.to);
  const area = selectedArea(session.get().selection);
  if (preview.kind === 'width') {
    const { column, widthPx } = preview;
    const several = isWholeColumns(area, geometry) && column >= area.left && column <= area.right;
    const [left, right] = several ? [area.left, area.right] : [column, column];
    void session.actions.edit({ do: 'set-widths', left, right, widthsPx: [widthPx] });
  }
  if (preview.kind === 'height') {
    const { position, heightPx } = preview;
    const several =
      area.left === 0 && area.right === geometry.columnCount - 1 && position >= area.top && position <= area.bottom;
    const [top, bottom] = several ? [area.top, area.bottom] : [position, position];
    void session.actions.edit({ do: 'set-height', top, bottom, heightPx });
  }
}

/** The selection grown towards a cell, down or up, right or left: whichever is further. */
function filledTo(from: Area, { column, position }: { column: number; position: number }): Area {
  const down = Math.max(position - from.bottom, from.top - position, 0);
  const across = Math.max(column - from.right, from.left - column, 0);
  if (down === 0 && across === 0) return from;
  return down >= across
    ? { ...from, top: Math.min(from.top, position), bottom: Math.max(from.bottom, position) }
    : { ...from, left: Math.min(from.left, column), right: Math.max(from.right, column) };
}
