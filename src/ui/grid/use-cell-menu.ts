import { holdsCell } from '../../core/sheet/address';
import { useState, type MouseEvent, type RefObject } from 'react';
import { useSession } from '../sheet/use-session';
import type { Geometry, Scroll } from './engine/geometry';
import { hitTest } from './engine/hit-test';
import { selectedAreas } from './engine/selection';
import { selectHit } from './select-hit';

interface MenuOf {
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly scrollRef: RefObject<Scroll>;
  readonly geometry: Geometry;
  /** What a finger that rests on a cell does instead; it prevents the default then. */
  readonly onTouch: (event: MouseEvent) => void;
}

/** The button of a mouse that asks for a menu. */
const OTHER_BUTTON = 2;

/** Where the menu of the selected cells is open: under the pointer, or beneath the active cell for the keyboard. */
export function useCellMenu({ scroller, scrollRef, geometry, onTouch }: MenuOf) {
  const session = useSession();
  const [at, setAt] = useState<{ readonly x: number; readonly y: number } | null>(null);

  const onContextMenu = (event: MouseEvent) => {
    onTouch(event);
    const { editing, selection } = session.get();
    if (event.defaultPrevented || !session.isMaker || editing || !scroller.current) return;
    event.preventDefault();
    const bounds = scroller.current.getBoundingClientRect();
    if (event.button !== OTHER_BUTTON) {
      const { column, position } = selection.anchor;
      const area = { left: column, right: column, top: position, bottom: position };
      const box = geometry.boxInView(area, scrollRef.current);
      return setAt({ x: bounds.left + box.x, y: bounds.top + box.y + box.height });
    }
    const point = { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
    const hit = hitTest(geometry, { scroll: scrollRef.current, selected: null }, point);
    const isSelected =
      hit.kind === 'cell' &&
      selectedAreas(selection).some((area) => holdsCell(area, hit.cell.column, hit.cell.position));
    if (!isSelected) selectHit(hit, { shiftKey: false }, { session, geometry });
    setAt({ x: event.clientX, y: event.clientY });
  };

  return { at, onContextMenu, close: () => setAt(null) };
}
