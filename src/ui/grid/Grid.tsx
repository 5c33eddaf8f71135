'use client';

import { isFormulaInput } from '../../core/values/is-formula-input';
import { useCallback, useEffect, useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import type { Selection, SheetFrame } from '../../protocol/engine-messages';
import { colorOfPerson, TOKENS } from '../theme/tokens';
import { useSession, useSessionState } from '../sheet/use-session';
import { coloredReferences } from '../formula/colored-references';
import { prepareFormulaEditor } from '../formula/lazy-formula-editor';
import { surroundingsOf } from '../formula/surroundings';
import { CellEditor } from './CellEditor';
import { Geometry, TRIAL_PX, type Scroll, type Size } from './engine/geometry';
import { keyIntent } from './engine/key-intent';
import { isWholeColumns, moveCell, selectCell, selectedArea } from './engine/selection';
import { forgetFits } from './painter/fit-text';
import { forgetWraps } from './painter/wrap-text';
import { paintScene } from './painter/paint-scene';
import classes from './Grid.module.css';
import { Mirror } from './Mirror';
import { askedArea, isCovered } from './asked-area';
import { readClipboard } from './read-clipboard';
import { boxOf, TouchHandles } from './TouchHandles';
import { usePointer, type Preview } from './use-pointer';

/** Room beyond the last row and field, so that they can be scrolled clear of the edge. */
const MARGIN_PX = 120;
const REST_MS = 90;
/** On a narrower screen the readings on the bench stand in for the trial column. */
const ROOM_FOR_TRIAL_PX = 600;
/** Share of the view that frozen fields may take. */
const MAX_FROZEN = 0.6;
/** What is not needed to read a sheet is fetched when it stands. */
const PREPARE_AFTER_MS = 600;

/** The sheet: a canvas that shows what is in view, with its accessible mirror over it and the cell editor. */
export function Grid() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const selection = useSessionState((state) => state.selection);
  const shown = useSessionState((state) => state.shown);
  const editing = useSessionState((state) => state.editing);
  const theme = useSessionState((state) => state.theme);
  const hasTrial = useSessionState((state) => (state.window?.trial ?? null) !== null);
  const scroller = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scroll = useRef<Scroll>({ left: 0, top: 0 });
  const asked = useRef<ReturnType<typeof askedArea> | null>(null);
  const [view, setView] = useState<Size>({ width: 0, height: 0 });
  const [rested, setRested] = useState<Scroll>({ left: 0, top: 0 });
  const geometry = useMemo(() => geometryOf(frame, { viewPx: view.width, hasTrial }), [frame, view.width, hasTrial]);

  const reveal = useRef<(next: Selection) => void>(() => {});
  const { preview, cursor, isTouch, cellAt, handlers } = usePointer({
    session,
    geometry,
    scroller,
    reveal: (next) => reveal.current(next),
  });

  const paint = useCallback(() => {
    const context = canvas.current?.getContext('2d', { alpha: false });
    if (!context || view.width === 0) return;
    const { window, frozen, selection: selected, frame: isOpen, editing: typed, others } = session.get();
    const ratio = devicePixelRatio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintScene(context, {
      geometry: sized(geometry, preview),
      scroll: scroll.current,
      view,
      tokens: TOKENS[theme],
      window,
      frozen,
      selected: isOpen ? selectedArea(selected) : null,
      also: selected.also ?? [],
      active: selected.anchor,
      references:
        typed && isFormulaInput(typed.text)
          ? coloredReferences(typed.text, surroundingsOf(isOpen)).map(({ area, color }) => ({
              area,
              color: TOKENS[theme].references[color]!,
            }))
          : [],
      others: others.flatMap(({ name, area }, place) =>
        area ? { area, name, color: colorOfPerson(theme, place) } : [],
      ),
      folds: isOpen?.folds ?? [],
      filling: preview?.kind === 'fill' ? preview.to : null,
      landing: preview?.kind === 'move' ? preview : null,
    });
  }, [session, geometry, view, theme, preview]);

  const planned = useRef(0);
  const plan = useCallback(() => {
    cancelAnimationFrame(planned.current);
    planned.current = requestAnimationFrame(paint);
  }, [paint]);

  useEffect(() => {
    plan();
    let painted = session.get();
    return session.subscribe(() => {
      const { window, frozen, selection: selected, frame: isOpen, editing: typed, others } = session.get();
      const before = painted;
      painted = session.get();
      // New values are painted in the task that brings them, before anything else is rendered.
      if (window !== before.window) return paint();
      // What goes on at the bench or in the legend alone is not the grid's.
      if (
        others !== before.others ||
        frozen !== before.frozen ||
        selected !== before.selection ||
        isOpen !== before.frame ||
        typed !== before.editing
      )
        plan();
    });
  }, [session, plan, paint]);

  const look = useCallback(() => {
    if (geometry.rowCount === 0 || view.width === 0) return;
    const visible = geometry.visible(scroll.current, view);
    if (asked.current && isCovered(visible, asked.current)) return;
    asked.current = askedArea(visible, geometry);
    session.setViewport(asked.current);
  }, [session, geometry, view]);

  useEffect(() => {
    asked.current = null;
    look();
  }, [look]);

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
      forgetWraps();
      plan();
    });
    return () => {
      gone = true;
    };
  }, [plan]);

  // What a filter leaves is shown from its first record.
  const filter = JSON.stringify(frame?.filter ?? null);
  useEffect(() => {
    if (filter !== 'null') scroller.current?.scrollTo({ top: 0 });
  }, [filter]);

  const isOpened = frame !== null;
  useEffect(() => {
    if (!isOpened) return;
    // The keys are the grid's from the start, unless somebody is already busy elsewhere.
    if (document.activeElement === document.body) scroller.current?.focus({ preventScroll: true });
    const waiting = setTimeout(prepareFormulaEditor, PREPARE_AFTER_MS);
    return () => clearTimeout(waiting);
  }, [isOpened]);

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
      // Even a scroll to the present position makes the browser lay the page out.
      if (next.left === scroll.current.left && next.top === scroll.current.top) return;
      scroller.current?.scrollTo(next.left, next.top);
      scroll.current = next;
    },
    [geometry, view],
  );

  const show = useCallback(
    (next: Selection) => {
      session.select(next);
      bringIntoView(next.focus);
    },
    [session, bringIntoView],
  );
  useEffect(() => {
    reveal.current = show;
  }, [show]);

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
      scroll.current,
    );
    const wasInView = box.y >= geometry.frozenHeight && box.y < roomBefore.current;
    if (wasInView && view.height < roomBefore.current) bringIntoView(anchor);
    roomBefore.current = view.height;
  }, [session, geometry, view, bringIntoView]);

  const wasEditing = useRef(false);
  useEffect(() => {
    // A reader who has scrolled elsewhere meanwhile stays there.
    const isLeft = document.activeElement === document.body || scroller.current?.contains(document.activeElement);
    if (wasEditing.current && !editing && isLeft) scroller.current?.focus({ preventScroll: true });
    wasEditing.current = editing?.place === 'cell';
  }, [editing]);

  const move = useCallback(
    (columns: number, rows: number, extend = false) => {
      const { selection } = session.get();
      const { anchor, focus } = selection;
      const from = extend ? focus : anchor;
      const { left, top, right, bottom } = geometry.areaOf(from);
      // Out of merged cells by the edge that the move goes over.
      const edge = { column: columns > 0 ? right : left, position: rows > 0 ? bottom : top };
      const moved = moveCell(
        { column: columns ? edge.column : from.column, position: rows ? edge.position : from.position },
        { columns, rows },
        geometry,
      );
      const merged = geometry.areaOf(moved);
      const cell = extend ? moved : { column: merged.left, position: merged.top };
      show(extend ? { ...selection, focus: cell } : selectCell(cell));
    },
    [session, geometry, show],
  );

  const onKeyDown = (event: KeyboardEvent) => {
    if (session.get().editing?.place === 'cell' || !frame) return;
    const intent = keyIntent({
      key: event.key,
      shift: event.shiftKey,
      control: event.ctrlKey || event.metaKey,
      alt: event.altKey,
    });
    if (!intent) return;
    if (intent.kind === 'move' && event.key === 'Tab' && leavesBy(event.shiftKey, session.get().selection, geometry))
      return;
    event.preventDefault();
    switch (intent.kind) {
      case 'move':
        return move(intent.columns, intent.rows, intent.extend);
      case 'page':
        return move(
          0,
          intent.direction * Math.max(1, Math.floor((view.height - geometry.frozenHeight) / 27) - 1),
          intent.extend,
        );
      case 'select-all':
        return session.select({
          anchor: { column: 0, position: 0 },
          focus: { column: geometry.columnCount - 1, position: geometry.rowCount - 1 },
        });
      case 'edit':
        return session.beginEdit('cell');
      case 'type':
        return session.beginEdit('cell', intent.text);
      case 'clear':
        return void session.actions.editEach((area) => ({ do: 'clear-cells', area }));
      case 'edge':
        return void session.actions.moveToEdge(intent.columns, intent.rows, intent.extend);
      case 'move-selected':
        return void session.actions.moveSelected(intent.columns, intent.rows);
      case 'fill':
        return void session.actions.fillSelection(intent.direction);
      case 'mark':
        return session.actions.toggleMark(intent.mark);
      case 'find':
        return session.openPanel('find');
      case 'new-rule':
        return session.openPanel('new-rule');
      case 'help':
        return session.openPanel('keys');
      case 'undo':
        return session.undo();
      case 'redo':
        return session.redo();
    }
  };

  const onCopy = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    event.preventDefault();
    void session.actions.copy();
  };
  const onCut = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    onCopy(event);
    void session.actions.edit({ do: 'clear-cells', area: session.actions.area });
  };
  const onPaste = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    const table = readClipboard(event.clipboardData);
    if (!table) return;
    event.preventDefault();
    void session.actions.paste(table, 'all');
  };

  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;
  return (
    <div className={classes.frame}>
      <div
        ref={scroller}
        className={classes.scroller}
        style={{ cursor }}
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
        onCopy={onCopy}
        onCut={onCut}
        onPaste={onPaste}
        {...handlers}
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
        <div
          className={classes.content}
          role="presentation"
          style={{ width: geometry.width + MARGIN_PX, height: geometry.height + MARGIN_PX }}
        >
          <Mirror geometry={geometry} view={view} scroll={rested} />
          {isTouch && frame && !editing && <TouchHandles geometry={geometry} scroll={rested} cellAt={cellAt} />}
          {editing?.place === 'cell' && (
            <div role="row">
              <div role="gridcell" aria-colindex={editing.column + 1}>
                <CellEditor editing={editing} box={boxOf(geometry, editing, rested)} onMove={move} />
              </div>
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

function geometryOf(frame: SheetFrame | null, { viewPx, hasTrial }: { viewPx: number; hasTrial: boolean }): Geometry {
  if (!frame) return new Geometry({ widths: [], rowCount: 0, frozenRows: 0 });
  const { rowCount, frozenRows, heights, merges } = frame;
  const widths = frame.fields.map((field) => (field.hidden ? 0 : field.widthPx));
  const trialPx = hasTrial && viewPx >= ROOM_FOR_TRIAL_PX ? TRIAL_PX : 0;
  const layout = { widths, rowCount, frozenRows, heights, merges, trialPx };
  const frozen = new Geometry({ ...layout, frozenColumns: frame.frozenColumns });
  // On a narrow screen what is frozen must leave room for the rest.
  return frozen.frozenWidth <= viewPx * MAX_FROZEN ? frozen : new Geometry(layout);
}

/** The sheet as it would be if what is being sized were let go now. */
function sized(geometry: Geometry, preview: Preview | null): Geometry {
  if (preview?.kind === 'width') return geometry.withWidth(preview.column, preview.widthPx);
  return preview?.kind === 'height' ? geometry.withHeight(preview.position, preview.heightPx) : geometry;
}

/** Tab leaves the grid from its last cell, Shift and Tab from its first. */
function leavesBy(backwards: boolean, { anchor }: Selection, { columnCount }: Geometry): boolean {
  return backwards ? anchor.column === 0 : anchor.column === columnCount - 1;
}
