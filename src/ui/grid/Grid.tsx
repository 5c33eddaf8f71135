'use client';

import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react';
import { useComputedColorScheme } from '@mantine/core';
import { TOKENS } from '../theme/tokens';
import { useSession, useSessionState } from '../sheet/use-session';
import { CellEditor } from './CellEditor';
import { Geometry, type Scroll, type Size } from './engine/geometry';
import { hitTest } from './engine/hit-test';
import { keyIntent } from './engine/key-intent';
import { moveCell, selectCell, selectedArea, type Selection } from './engine/selection';
import { forgetFits } from './painter/fit-text';
import { paintScene } from './painter/paint-scene';
import classes from './Grid.module.css';
import { Mirror } from './Mirror';
import { askedArea, isCovered } from './asked-area';

/** Room beyond the last row and field, so that they can be scrolled clear of the edge. */
const MARGIN_PX = 120;
const REST_MS = 90;

/** The sheet: a canvas that shows what is in view, with its accessible mirror over it and the editor where one types. */
export function Grid() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const selection = useSessionState((state) => state.selection);
  const shown = useSessionState((state) => state.shown);
  const editing = useSessionState((state) => state.editing);
  const theme = useComputedColorScheme('light');
  const scroller = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scroll = useRef<Scroll>({ left: 0, top: 0 });
  const asked = useRef<ReturnType<typeof askedArea> | null>(null);
  const [view, setView] = useState<Size>({ width: 0, height: 0 });
  const [rested, setRested] = useState<Scroll>({ left: 0, top: 0 });
  const geometry = useMemo(
    () => new Geometry(frame?.fields.map((field) => field.widthPx) ?? [], frame?.rowCount ?? 0, frame?.frozenRows ?? 0),
    [frame],
  );

  const paint = useCallback(() => {
    const context = canvas.current?.getContext('2d', { alpha: false });
    if (!context || view.width === 0) return;
    const { window, frozen, selection: selected, frame: isOpen } = session.get();
    const ratio = devicePixelRatio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintScene(context, {
      geometry,
      scroll: scroll.current,
      view,
      tokens: TOKENS[theme],
      window,
      frozen,
      selected: isOpen ? selectedArea(selected) : null,
      active: selected.anchor,
    });
  }, [session, geometry, view, theme]);

  const planned = useRef(0);
  const plan = useCallback(() => {
    cancelAnimationFrame(planned.current);
    planned.current = requestAnimationFrame(paint);
  }, [paint]);

  useEffect(() => {
    plan();
    let painted = session.get().window;
    return session.subscribe(() => {
      const { window } = session.get();
      if (window === painted) return plan();
      // New values are painted in the task that brings them, before anything else is rendered.
      painted = window;
      paint();
    });
  }, [session, plan, paint]);

  const look = useCallback(() => {
    if (geometry.rowCount === 0 || view.width === 0) return;
    const visible = geometry.visible(scroll.current, view);
    if (asked.current && isCovered(visible, asked.current)) return;
    asked.current = askedArea(visible, geometry);
    session.lookAt(asked.current);
  }, [session, geometry, view]);

  useEffect(() => {
    asked.current = null;
    look();
  }, [look]);

  useEffect(() => session.useTheme(theme), [session, theme]);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => {
      const { clientWidth: width, clientHeight: height } = entry!.target;
      setView((before) => (before.width === width && before.height === height ? before : { width, height }));
    });
    observer.observe(scroller.current!);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    let gone = false;
    void document.fonts.ready.then(() => {
      if (gone) return;
      forgetFits();
      plan();
    });
    return () => {
      gone = true;
    };
  }, [plan]);

  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const onScroll = () => {
    const { scrollLeft, scrollTop } = scroller.current!;
    scroll.current = { left: scrollLeft, top: scrollTop };
    look();
    plan();
    clearTimeout(resting.current);
    resting.current = setTimeout(() => setRested(scroll.current), REST_MS);
  };

  const bringIntoView = useCallback(
    (cell: Selection['focus']) => {
      const next = geometry.scrollTo(cell, scroll.current, view);
      // Even a scroll to where one is makes the browser lay the page out.
      if (next.left === scroll.current.left && next.top === scroll.current.top) return;
      scroller.current?.scrollTo(next.left, next.top);
      scroll.current = next;
    },
    [geometry, view],
  );

  const reveal = useCallback(
    (next: Selection) => {
      session.select(next);
      bringIntoView(next.focus);
    },
    [session, bringIntoView],
  );

  // A selection that is made elsewhere, such as by a new record, is brought into view once the sheet has it.
  const reached = useRef<Selection | null>(null);
  useEffect(() => {
    if (!shown || shown === reached.current || view.width === 0 || shown.focus.position >= geometry.rowCount) return;
    reached.current = shown;
    bringIntoView(shown.focus);
  }, [shown, geometry, view, bringIntoView]);

  // Where the bench takes room from the grid, the cell being worked on stays in view.
  const roomBefore = useRef(0);
  useEffect(() => {
    const { anchor } = session.get().selection;
    const box = geometry.boxInView({ left: anchor.column, right: anchor.column, top: anchor.position, bottom: anchor.position }, scroll.current);
    const wasInView = box.y >= geometry.frozenHeight && box.y < roomBefore.current;
    if (wasInView && view.height < roomBefore.current) bringIntoView(anchor);
    roomBefore.current = view.height;
  }, [session, geometry, view, bringIntoView]);

  const wasEditing = useRef(false);
  useEffect(() => {
    if (wasEditing.current && !editing) scroller.current?.focus({ preventScroll: true });
    wasEditing.current = editing?.place === 'cell';
  }, [editing]);

  const move = useCallback(
    (columns: number, rows: number, extend = false) => {
      const { anchor, focus } = session.get().selection;
      const cell = moveCell(extend ? focus : anchor, { columns, rows }, geometry);
      reveal(extend ? { anchor, focus: cell } : selectCell(cell));
    },
    [session, geometry, reveal],
  );

  const onKeyDown = (event: KeyboardEvent) => {
    if (session.get().editing?.place === 'cell' || !frame) return;
    const intent = keyIntent({ key: event.key, shift: event.shiftKey, control: event.ctrlKey || event.metaKey, alt: event.altKey });
    if (!intent) return;
    if (intent.kind === 'move' && event.key === 'Tab' && leavesBy(event.shiftKey, session.get().selection, geometry)) return;
    event.preventDefault();
    switch (intent.kind) {
      case 'move':
        return move(intent.columns, intent.rows, intent.extend);
      case 'page':
        return move(0, intent.direction * Math.max(1, Math.floor((view.height - geometry.frozenHeight) / 27) - 1), intent.extend);
      case 'select-all':
        return session.select({ anchor: { column: 0, position: 0 }, focus: { column: geometry.columnCount - 1, position: geometry.rowCount - 1 } });
      case 'edit':
        return session.edit('cell');
      case 'type':
        return session.edit('cell', intent.text);
      case 'clear':
        return session.clearSelection();
      case 'undo':
        return session.undo();
      case 'redo':
        return session.redo();
    }
  };

  const hitAt = (event: MouseEvent | PointerEvent) => {
    const bounds = scroller.current!.getBoundingClientRect();
    return hitTest(geometry, scroll.current, { x: event.clientX - bounds.left, y: event.clientY - bounds.top });
  };

  const selectHit = (event: MouseEvent | PointerEvent) => {
    const hit = hitAt(event);
    const { anchor } = session.get().selection;
    const last = { column: geometry.columnCount - 1, position: geometry.rowCount - 1 };
    switch (hit.kind) {
      case 'cell':
        return session.select(event.shiftKey ? { anchor, focus: hit.cell } : selectCell(hit.cell));
      case 'column':
        return session.select({
          anchor: { column: event.shiftKey ? anchor.column : hit.column, position: 0 },
          focus: { column: hit.column, position: last.position },
        });
      case 'row':
        return session.select({
          anchor: { column: 0, position: event.shiftKey ? anchor.position : hit.position },
          focus: { column: last.column, position: hit.position },
        });
      case 'corner':
        return session.select({ anchor: { column: 0, position: 0 }, focus: last });
      case 'outside':
    }
  };

  const dragging = useRef(false);
  const onPointerDown = (event: PointerEvent) => {
    if (event.pointerType === 'touch' || event.button !== 0 || !(event.target instanceof Node) || (event.target as Element).closest('input')) return;
    if (event.nativeEvent.offsetX > scroller.current!.clientWidth && event.target === scroller.current) return;
    session.commit();
    selectHit(event);
    dragging.current = hitAt(event).kind === 'cell';
    scroller.current!.focus({ preventScroll: true });
    if (dragging.current) scroller.current!.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent) => {
    if (!dragging.current) return;
    const hit = hitAt(event);
    const { anchor, focus } = session.get().selection;
    if (hit.kind === 'cell' && (hit.cell.column !== focus.column || hit.cell.position !== focus.position)) reveal({ anchor, focus: hit.cell });
  };
  const onPointerUp = () => {
    dragging.current = false;
  };
  const onClick = (event: MouseEvent) => {
    if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== 'touch' || (event.target as Element).closest('input')) return;
    session.commit();
    selectHit(event);
  };
  const onDoubleClick = (event: MouseEvent) => {
    if (hitAt(event).kind === 'cell' && !(event.target as Element).closest('input')) session.edit('cell');
  };

  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;
  return (
    <div className={classes.frame}>
      <div
        ref={scroller}
        className={classes.scroller}
        role="grid"
        aria-label={frame?.name ?? 'Sheet'}
        aria-rowcount={geometry.rowCount}
        aria-colcount={geometry.columnCount}
        aria-multiselectable
        aria-busy={frame === null}
        aria-activedescendant={frame ? `cell-${selection.anchor.column}-${selection.anchor.position}` : undefined}
        tabIndex={0}
        onScroll={onScroll}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerCancel={onPointerUp}
        onClick={onClick}
        onDoubleClick={onDoubleClick}
      >
        <div className={classes.pinned} role="presentation">
          <canvas
            ref={canvas}
            aria-hidden
            width={Math.round(view.width * ratio)}
            height={Math.round(view.height * ratio)}
            style={{ width: view.width, height: view.height }}
          />
        </div>
        <div className={classes.content} role="presentation" style={{ width: geometry.width + MARGIN_PX, height: geometry.height + MARGIN_PX }}>
          <Mirror geometry={geometry} view={view} scroll={rested} />
          {editing?.place === 'cell' && <CellEditor editing={editing} box={editorBox(geometry, editing, rested)} onMove={move} />}
        </div>
      </div>
    </div>
  );
}

/** Tab leaves the grid from its last cell, Shift and Tab from its first. */
function leavesBy(backwards: boolean, { anchor }: Selection, { columnCount }: Geometry): boolean {
  return backwards ? anchor.column === 0 : anchor.column === columnCount - 1;
}

function editorBox(geometry: Geometry, cell: { column: number; position: number }, scroll: Scroll) {
  const box = geometry.box(cell);
  return cell.position < geometry.frozenRows ? { ...box, y: box.y + scroll.top } : box;
}
