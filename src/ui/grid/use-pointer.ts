import { useRef, useState, type MouseEvent, type PointerEvent, type RefObject } from 'react';
import type { Selection } from '../../protocol/sheet-view';
import type { Session } from '../sheet/session';
import { FOLD_PX, type Geometry, type Scroll } from './engine/geometry';
import { selectedHeads } from './engine/drag-heads';
import { hitTest, type Hit } from './engine/hit-test';
import { isWholeColumns, selectedArea } from './engine/selection';
import { beginDrag, moveDrag, releaseDrag, type Drag, type Preview } from './pointer-drags';
import { selectHit } from './select-hit';

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

/** The pointer on the grid: selects, sizes fields and rows by their edges, fills by the handle. */
export function usePointer({ session, geometry, scroller, reveal }: Around) {
  const drag = useRef<Drag | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [cursor, setCursor] = useState('');
  const [isTouch, setIsTouch] = useState(false);

  const places = pointerPlaces({ session, geometry, scroller });
  const { element, pointAt, scrolled, hitAt } = places;

  const onPointerDown = (event: PointerEvent) => {
    setIsTouch(event.pointerType === 'touch');
    if (event.pointerType === 'touch' || event.button !== 0 || !(event.target instanceof Element) || isInEditor(event))
      return;
    if (event.nativeEvent.offsetX > element().clientWidth && event.target === scroller.current) return;
    const hit = hitAt(event);
    if (hit.kind === 'cell' && session.pointing.isOpen) {
      session.pointing.at(hit.cell, event.shiftKey);
      drag.current = { kind: 'point' };
      return element().setPointerCapture(event.pointerId);
    }
    session.commit();
    if (hit.kind === 'row' && pointAt(event).x < FOLD_PX && session.actions.toggleFold(hit.position)) return;
    const moves =
      event.shiftKey || event.ctrlKey ? null : selectedHeads(geometry, hit, selectedArea(session.get().selection));
    if (!moves) selectHit(hit, event, { session, geometry });
    drag.current = moves ? { kind: 'move', axis: moves } : beginDrag(hit, { session, geometry, point: pointAt(event) });
    element().focus({ preventScroll: true });
    if (drag.current) element().setPointerCapture(event.pointerId);
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
    const next = moveDrag(held, { session, geometry, scroll: scrolled(), point: pointAt(event), reveal });
    if (next) setPreview(next);
  };

  const onPointerUp = (event: PointerEvent) => {
    const held = drag.current;
    drag.current = null;
    // Selected heads that were pressed and not dragged are selected alone.
    if (held?.kind === 'move' && !preview) selectHit(hitAt(event), event, { session, geometry });
    if (!held || !preview) return;
    setPreview(null);
    releaseDrag(held, preview, { session, geometry });
  };

  /** Pointing at cells leaves the focus in the formula. */
  const onMouseDown = (event: MouseEvent) => {
    if (session.pointing.isOpen && !isInEditor(event) && hitAt(event).kind === 'cell') event.preventDefault();
  };

  return {
    preview,
    cursor,
    /** True while the grid is being worked by fingers. */
    isTouch,
    cellAt: places.cellAt,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: onPointerUp,
      onMouseDown,
      onDoubleClick: (event: MouseEvent) => !isInEditor(event) && openUnder(hitAt(event), { session, geometry }),
      ...touchHandlers(places, { session, geometry }),
    },
  };
}

/** Where a pointer is on the grid. */
function pointerPlaces({ session, geometry, scroller }: Omit<Around, 'reveal'>) {
  /** The scrolled element, which is there while its events come. */
  const element = (): HTMLDivElement => scroller.current!;
  const pointAt = (event: MouseEvent | PointerEvent) => {
    const bounds = element().getBoundingClientRect();
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
  };
  /** Where the browser has scrolled to; its event may come later. */
  const scrolled = (): Scroll => ({ left: element().scrollLeft, top: element().scrollTop });
  /** What is under a pointer, handles of the selection included. */
  const hitAt = (event: MouseEvent | PointerEvent) =>
    hitTest(geometry, { scroll: scrolled(), selected: selectedArea(session.get().selection) }, pointAt(event));

  const cellAt = (event: PointerEvent) => {
    const hit = hitTest(geometry, { scroll: scrolled(), selected: null }, pointAt(event));
    return hit.kind === 'cell' ? hit.cell : null;
  };
  /** What is under a finger, which has no use for handles. */
  const touchedAt = (event: MouseEvent) => hitTest(geometry, { scroll: scrolled(), selected: null }, pointAt(event));
  return { element, pointAt, scrolled, hitAt, cellAt, touchedAt };
}

type OnGrid = Pick<Around, 'session' | 'geometry'>;

/** Fingers select by a tap; one that rests on a cell takes the selection there. */
const touchHandlers = ({ pointAt, touchedAt }: ReturnType<typeof pointerPlaces>, { session, geometry }: OnGrid) => ({
  onClick(event: MouseEvent) {
    if (!isTouched(event) || isInEditor(event)) return;
    const hit = touchedAt(event);
    if (hit.kind === 'cell' && session.pointing.isOpen) return session.pointing.at(hit.cell, false);
    session.commit();
    if (hit.kind === 'row' && pointAt(event).x < FOLD_PX && session.actions.toggleFold(hit.position)) return;
    selectHit(hit, event, { session, geometry });
  },
  onContextMenu(event: MouseEvent) {
    if (!isTouched(event)) return;
    event.preventDefault();
    selectHit(touchedAt(event), { shiftKey: true }, { session, geometry });
  },
});

/** A double click: begins to edit a cell, or fits what was hit by its edge to its contents. */
function openUnder(hit: Hit, { session, geometry }: OnGrid): void {
  const area = selectedArea(session.get().selection);
  if (hit.kind === 'cell') session.beginEdit('cell');
  else if (hit.kind === 'column-edge') {
    const several = isWholeColumns(area, geometry) && hit.column >= area.left && hit.column <= area.right;
    void (several
      ? session.actions.fitFields(area.left, area.right)
      : session.actions.fitFields(hit.column, hit.column));
  } else if (hit.kind === 'row-edge')
    void session.actions.edit({ do: 'set-height', top: hit.position, bottom: hit.position, heightPx: null });
}

const isTouched = ({ nativeEvent }: MouseEvent): boolean =>
  nativeEvent instanceof globalThis.PointerEvent && nativeEvent.pointerType === 'touch';

/** Events in the editor of a cell, or in its popovers, bubble here and are not the grid's. */
const isInEditor = ({ target }: MouseEvent | PointerEvent): boolean =>
  target instanceof Element && (target.closest('input, .cm-editor') !== null || target.closest('[role=grid]') === null);
