import { useRef, useState, type MouseEvent, type PointerEvent, type RefObject } from 'react';
import type { Area, Selection } from '../../protocol/engine-messages';
import type { Session } from '../sheet/session';
import { FOLD_PX, type Geometry, type Scroll } from './engine/geometry';
import { landingAt, selectedHeads, type Axis } from './engine/drag-heads';
import { hitTest, type Hit } from './engine/hit-test';
import { isWholeColumns, selectCell, selectedArea, selectedAreas } from './engine/selection';

/** What a pointer that is held down is doing. */
type Drag =
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

interface Around {
  readonly session: Session;
  readonly geometry: Geometry;
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly reveal: (selection: Selection) => void;
}

const CURSORS: Partial<Record<Hit['kind'], string>> = {
  'column-edge': 'col-resize',
  'row-edge': 'row-resize',
  handle: 'crosshair',
};

/** What the pointer does on the grid: selects, sizes fields and rows by their edges, fills by the handle. */
export function usePointer({ session, geometry, scroller, reveal }: Around) {
  const drag = useRef<Drag | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [cursor, setCursor] = useState('');
  const [isTouch, setIsTouch] = useState(false);

  const pointAt = (event: MouseEvent | PointerEvent) => {
    const bounds = scroller.current!.getBoundingClientRect();
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
  };
  /** Where the browser has scrolled to; its event may come later. */
  const scrolled = (): Scroll => ({ left: scroller.current!.scrollLeft, top: scroller.current!.scrollTop });
  const hitAt = (event: MouseEvent | PointerEvent) =>
    hitTest(geometry, { scroll: scrolled(), selected: selectedArea(session.get().selection) }, pointAt(event));

  const begin = (hit: Hit, event: PointerEvent): Drag | null => {
    const { x, y } = pointAt(event);
    switch (hit.kind) {
      case 'cell':
        return { kind: 'select' };
      case 'handle':
        return { kind: 'fill', from: selectedArea(session.get().selection) };
      case 'column-edge':
        return { kind: 'width', column: hit.column, grabbedPx: x - geometry.columnWidth(hit.column) };
      case 'row-edge':
        return { kind: 'height', position: hit.position, grabbedPx: y - geometry.rowHeight(hit.position) };
      case 'column':
        return { kind: 'heads', axis: 'columns' };
      case 'row':
        return { kind: 'heads', axis: 'rows' };
      default:
        return null;
    }
  };

  const cellAt = (event: PointerEvent) => {
    const hit = hitTest(geometry, { scroll: scrolled(), selected: null }, pointAt(event));
    return hit.kind === 'cell' ? hit.cell : null;
  };

  const onPointerDown = (event: PointerEvent) => {
    setIsTouch(event.pointerType === 'touch');
    if (event.pointerType === 'touch' || event.button !== 0 || !(event.target instanceof Element) || isInEditor(event))
      return;
    if (event.nativeEvent.offsetX > scroller.current!.clientWidth && event.target === scroller.current) return;
    const hit = hitAt(event);
    if (hit.kind === 'cell' && session.pointing.isOpen) {
      session.pointing.at(hit.cell, event.shiftKey);
      drag.current = { kind: 'point' };
      return scroller.current!.setPointerCapture(event.pointerId);
    }
    session.commit();
    if (hit.kind === 'row' && pointAt(event).x < FOLD_PX && session.actions.toggleFold(hit.position)) return;
    const moves =
      event.shiftKey || event.ctrlKey ? null : selectedHeads(geometry, hit, selectedArea(session.get().selection));
    if (!moves) selectHit(hit, event, { session, geometry });
    drag.current = moves ? { kind: 'move', axis: moves } : begin(hit, event);
    scroller.current!.focus({ preventScroll: true });
    if (drag.current) scroller.current!.setPointerCapture(event.pointerId);
  };

  const onPointerMove = (event: PointerEvent) => {
    const held = drag.current;
    if (!held) {
      if (event.pointerType === 'touch') return;
      const under = hitAt(event);
      setCursor(
        selectedHeads(geometry, under, selectedArea(session.get().selection)) ? 'grab' : (CURSORS[under.kind] ?? ''),
      );
      return;
    }
    const { x, y } = pointAt(event);
    if (held.kind === 'width')
      return setPreview({ kind: 'width', column: held.column, widthPx: Math.max(24, x - held.grabbedPx) });
    if (held.kind === 'height')
      return setPreview({ kind: 'height', position: held.position, heightPx: Math.max(16, y - held.grabbedPx) });
    if (held.kind === 'move')
      return setPreview({
        kind: 'move',
        axis: held.axis,
        to: landingAt(geometry, held.axis, { scroll: scrolled(), point: { x, y } }),
      });
    const hit = hitTest(geometry, { scroll: scrolled(), selected: null }, { x, y });
    if (held.kind === 'heads') {
      if (hit.kind === (held.axis === 'columns' ? 'column' : 'row'))
        selectHit(hit, { shiftKey: true }, { session, geometry });
      return;
    }
    if (hit.kind !== 'cell') return;
    if (held.kind === 'point') return session.pointing.at(hit.cell, true);
    if (held.kind === 'fill') return setPreview({ kind: 'fill', to: filledTo(held.from, hit.cell) });
    const { focus } = session.get().selection;
    if (hit.cell.column !== focus.column || hit.cell.position !== focus.position)
      reveal({ ...session.get().selection, focus: hit.cell });
  };

  const onPointerUp = (event: PointerEvent) => {
    const held = drag.current;
    drag.current = null;
    // Selected heads that were pressed and not dragged are selected alone.
    if (held?.kind === 'move' && !preview) selectHit(hitAt(event), event, { session, geometry });
    if (!held || !preview) return;
    setPreview(null);
    if (held.kind === 'fill' && preview.kind === 'fill') void session.actions.fill(held.from, preview.to);
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
  };

  const onClick = (event: MouseEvent) => {
    if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== 'touch' || isInEditor(event)) return;
    const hit = hitTest(geometry, { scroll: scrolled(), selected: null }, pointAt(event));
    if (hit.kind === 'cell' && session.pointing.isOpen) return session.pointing.at(hit.cell, false);
    session.commit();
    if (hit.kind === 'row' && pointAt(event).x < FOLD_PX && session.actions.toggleFold(hit.position)) return;
    selectHit(hit, event, { session, geometry });
  };

  /** Pointing at cells leaves the focus in the formula. */
  const onMouseDown = (event: MouseEvent) => {
    if (session.pointing.isOpen && !isInEditor(event) && hitAt(event).kind === 'cell') event.preventDefault();
  };

  /** A finger that rests on a cell takes the selection there. */
  const onContextMenu = (event: MouseEvent) => {
    if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== 'touch') return;
    event.preventDefault();
    selectHit(
      hitTest(geometry, { scroll: scrolled(), selected: null }, pointAt(event)),
      { shiftKey: true },
      { session, geometry },
    );
  };

  const onDoubleClick = (event: MouseEvent) => {
    if (isInEditor(event)) return;
    const hit = hitAt(event);
    const area = selectedArea(session.get().selection);
    if (hit.kind === 'cell') session.beginEdit('cell');
    else if (hit.kind === 'column-edge') {
      const several = isWholeColumns(area, geometry) && hit.column >= area.left && hit.column <= area.right;
      void (several
        ? session.actions.fitFields(area.left, area.right)
        : session.actions.fitFields(hit.column, hit.column));
    } else if (hit.kind === 'row-edge')
      void session.actions.edit({ do: 'set-height', top: hit.position, bottom: hit.position, heightPx: null });
  };

  return {
    preview,
    cursor,
    /** True while the grid is being worked by fingers. */
    isTouch,
    cellAt,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: onPointerUp,
      onMouseDown,
      onClick,
      onContextMenu,
      onDoubleClick,
    },
  };
}

/**
 * In the editor of a cell, or in what hangs from it over the page: what happens there bubbles here and is not the
 * grid's.
 */
const isInEditor = ({ target }: MouseEvent | PointerEvent): boolean =>
  (target as Element).closest('input, .cm-editor') !== null || (target as Element).closest('[role=grid]') === null;

interface Modifiers {
  readonly shiftKey: boolean;
  readonly ctrlKey?: boolean;
  readonly metaKey?: boolean;
}

function selectHit(
  hit: Hit,
  { shiftKey, ctrlKey = false, metaKey = false }: Modifiers,
  { session, geometry }: { session: Session; geometry: Geometry },
): void {
  const before = session.get().selection;
  const { anchor } = before;
  // Control, or command on machines that use it, adds a range to what is selected.
  const also = ctrlKey || metaKey ? selectedAreas(before).toReversed() : shiftKey ? (before.also ?? []) : [];
  const select = (selection: Selection) => session.select(also.length ? { ...selection, also } : selection);
  const last = { column: geometry.columnCount - 1, position: geometry.rowCount - 1 };
  switch (hit.kind) {
    case 'cell':
      return select(shiftKey ? { anchor, focus: hit.cell } : selectCell(hit.cell));
    case 'column':
      return select({
        anchor: { column: shiftKey ? anchor.column : hit.column, position: 0 },
        focus: { column: hit.column, position: last.position },
      });
    case 'row':
      return select({
        anchor: { column: 0, position: shiftKey ? anchor.position : hit.position },
        focus: { column: last.column, position: hit.position },
      });
    case 'corner':
      return session.select({ anchor: { column: 0, position: 0 }, focus: last });
    default:
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
