import { useCallback, useEffect, useRef, type RefObject } from 'react';
import type { Selection } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import type { Geometry, Scroll, Size } from './engine/geometry';
import { isWholeColumns, selectedArea } from './engine/selection';

interface Revealed {
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly scrollRef: RefObject<Scroll>;
  readonly geometry: Geometry;
  readonly view: Size;
}

/** Whether the first column or the first row is wanted in view, beneath what is frozen. */
export interface Beginning {
  readonly left: boolean;
  readonly top: boolean;
}

export type Show = (selection: Selection, beginning?: Beginning) => void;

/** Keeps the cells that matter in view. Returns a function that selects cells and scrolls to them. */
export function useReveal({ scroller, scrollRef, geometry, view }: Revealed): Show {
  const session = useSession();
  const shown = useSessionState((state) => state.shown);
  const filter = useSessionState((state) => JSON.stringify(state.frame?.filter ?? null));

  // The filtered view starts at its first record.
  useEffect(() => {
    if (filter !== 'null') scroller.current?.scrollTo({ top: 0 });
  }, [scroller, filter]);

  const bringIntoView = useCallback(
    (cell: Selection['focus'], beginning?: Beginning) => {
      const least = geometry.scrollTo(cell, scrollRef.current, view);
      const next = { left: beginning?.left ? 0 : least.left, top: beginning?.top ? 0 : least.top };
      // Even a scroll to the present position makes the browser lay the page out.
      if (next.left === scrollRef.current.left && next.top === scrollRef.current.top) return;
      scroller.current?.scrollTo(next.left, next.top);
      scrollRef.current = next;
    },
    [scroller, scrollRef, geometry, view],
  );

  const show = useCallback<Show>(
    (next, beginning) => {
      session.select(next);
      bringIntoView(next.focus, beginning);
    },
    [session, bringIntoView],
  );

  // A selection that is made elsewhere, such as by a new record, is brought into view once the sheet has it.
  const reached = useRef<Selection | null>(null);
  useEffect(() => {
    if (!shown || shown === reached.current || view.width === 0 || shown.focus.position >= geometry.rowCount) return;
    reached.current = shown;
    bringIntoView(isWholeColumns(selectedArea(shown), geometry) ? shown.anchor : shown.focus);
  }, [shown, geometry, view, bringIntoView]);

  // Where the bench takes room from the grid, the cell being worked on stays in view.
  const roomBefore = useRef(0);
  useEffect(() => {
    const { anchor } = session.get().selection;
    const box = geometry.boxInView(
      { left: anchor.column, right: anchor.column, top: anchor.position, bottom: anchor.position },
      scrollRef.current,
    );
    const wasInView = box.y >= geometry.frozenHeight && box.y < roomBefore.current;
    if (wasInView && view.height < roomBefore.current) bringIntoView(anchor);
    roomBefore.current = view.height;
  }, [session, scrollRef, geometry, view, bringIntoView]);

  return show;
}
