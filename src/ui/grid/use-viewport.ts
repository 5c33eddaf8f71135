import { useCallback, useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { useSession } from '../sheet/use-session';
import { askedArea, isCovered } from './asked-area';
import type { Geometry, Scroll, Size } from './engine/geometry';

/** How long the grid stands still before its mirror follows. */
const REST_MS = 90;

/** The size of the grid's view, in pixels. */
export function useViewSize(scroller: RefObject<HTMLDivElement | null>): Size {
  const [view, setView] = useState<Size>({ width: 0, height: 0 });
  // Before the first paint: the first cells need not wait for the observer.
  useLayoutEffect(() => {
    const element = scroller.current!;
    const measure = (): void => {
      const { clientWidth: width, clientHeight: height } = element;
      setView((before) => (before.width === width && before.height === height ? before : { width, height }));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [scroller]);
  return view;
}

interface Scrolled {
  readonly scroller: RefObject<HTMLDivElement | null>;
  /** Where it is scrolled to, kept up to date. */
  readonly scrollRef: RefObject<Scroll>;
  readonly geometry: Geometry;
  readonly view: Size;
  readonly plan: () => void;
}

/** Asks the engine for what is in view. Gives where the grid has come to rest, and the handler of its scroll event. */
export function useViewport({ scroller, scrollRef, geometry, view, plan }: Scrolled): {
  readonly rested: Scroll;
  readonly onScroll: () => void;
} {
  const session = useSession();
  const asked = useRef<ReturnType<typeof askedArea> | null>(null);
  const [rested, setRested] = useState<Scroll>({ left: 0, top: 0 });

  const ask = useCallback(() => {
    if (geometry.rowCount === 0 || view.width === 0) return;
    const visible = geometry.visible(scrollRef.current, view);
    if (asked.current && isCovered(visible, asked.current)) return;
    asked.current = askedArea(visible, geometry);
    session.setViewport(asked.current);
  }, [session, scrollRef, geometry, view]);

  useEffect(() => {
    asked.current = null;
    ask();
  }, [ask]);

  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const onScroll = () => {
    const { scrollLeft, scrollTop } = scroller.current!;
    scrollRef.current = { left: scrollLeft, top: scrollTop };
    ask();
    plan();
    clearTimeout(resting.current);
    resting.current = setTimeout(() => setRested(scrollRef.current), REST_MS);
  };
  return { rested, onScroll };
}
