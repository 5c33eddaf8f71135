'use client';

import { useEffect, useMemo, useRef, type PointerEvent, type RefObject } from 'react';
import { useTranslations } from 'use-intl';
import { type CellPosition } from '../../core/sheet/cell-position';
import type { RowHeights, Selection, SheetFrame } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import { CellEditor } from './CellEditor';
import { Geometry, TRIAL_PX, type Scroll, type Size } from './engine/geometry';
import classes from './Grid.module.css';
import { heightOf } from './painter/height-of';
import { Mirror } from './Mirror';
import { boxOf, TouchHandles } from './TouchHandles';
import { useCanvasPaint } from './use-canvas-paint';
import { useGridClipboard } from './clipboard/use-grid-clipboard';
import { useGridFocus } from './use-grid-focus';
import { useGridKeys } from './use-grid-keys';
import { usePointer } from './use-pointer';
import { CellMenu } from './CellMenu';
import { useCellMenu } from './use-cell-menu';
import { useReveal } from './use-reveal';
import { useViewport, useViewSize } from './use-viewport';

/** Room beyond the last row and field, so that they can be scrolled clear of the edge. */
const MARGIN_PX = 120;
/** On a narrower screen the readings on the bench stand in for the preview column. */
const ROOM_FOR_TRIAL_PX = 600;
/** The most that a header is made high by its labels. */
const MAX_HEADER_PX = 98;
/** Share of the view that frozen fields may take. */
const MAX_FROZEN = 0.6;

/** The sheet: a canvas that shows what is in view, with its accessible mirror over it and the cell editor. */
export function Grid() {
  const t = useTranslations('grid');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const selection = useSessionState((state) => state.selection);
  const hasTrial = useSessionState((state) => (state.window?.trial ?? null) !== null);
  const scroller = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scrollRef = useRef<Scroll>({ left: 0, top: 0 });
  const view = useViewSize(scroller);
  const geometry = useMemo(() => geometryOf(frame, { viewPx: view.width, hasTrial }), [frame, view.width, hasTrial]);
  const reveal = useRef<(next: Selection) => void>(() => {});
  const { preview, cursor, isTouch, cellAt, handlers } = usePointer({
    session,
    geometry,
    scroller,
    reveal: (next) => reveal.current(next),
  });
  const plan = useCanvasPaint({ canvas, scrollRef, geometry, view, preview });
  const { rested, onScroll } = useViewport({ scroller, scrollRef, geometry, view, plan });
  useGridFocus(scroller);
  const show = useReveal({ scroller, scrollRef, geometry, view });
  useEffect(() => {
    reveal.current = show;
  }, [show]);
  const { move, onKeyDown } = useGridKeys({ geometry, view, show });
  const clipboard = useGridClipboard();
  const menu = useCellMenu({ scroller, scrollRef, geometry, onTouch: handlers.onContextMenu });
  return (
    <div className={classes.frame}>
      <div
        ref={scroller}
        className={classes.scroller}
        style={{ cursor }}
        role="grid"
        aria-label={frame?.name ?? t('sheet')}
        data-help="words"
        aria-rowcount={geometry.rowCount}
        aria-colcount={geometry.columnCount}
        aria-multiselectable
        aria-busy={frame === null}
        aria-activedescendant={frame ? `cell-${selection.anchor.column}-${selection.anchor.position}` : undefined}
        tabIndex={0}
        onScroll={onScroll}
        onKeyDown={onKeyDown}
        {...clipboard}
        {...handlers}
        onContextMenu={menu.onContextMenu}
      >
        <div className={classes.pinned} role="presentation">
          <Canvas ref={canvas} view={view} />
        </div>
        <Overlay geometry={geometry} view={view} scroll={rested} touched={isTouch ? cellAt : null} onMove={move} />
      </div>
      <CellMenu at={menu.at} onClose={menu.close} />
      {frame === null && <Wait />}
    </div>
  );
}

/** Says that the sheet is on its way; the status of the page says it to those who hear it. */
function Wait() {
  const t = useTranslations('grid');
  return (
    <p className={classes.wait} aria-hidden>
      {t('openingTheSheet')}
    </p>
  );
}

/** What the sheet is painted on, with a pixel of its own for each of the screen. */
function Canvas({ ref, view }: { readonly ref: RefObject<HTMLCanvasElement | null>; readonly view: Size }) {
  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;
  return (
    <canvas
      ref={ref}
      aria-hidden
      width={Math.round(view.width * ratio)}
      height={Math.round(view.height * ratio)}
      style={{ width: view.width, height: view.height }}
    />
  );
}

interface OverlayProps {
  readonly geometry: Geometry;
  readonly view: Size;
  readonly scroll: Scroll;
  /** The cell under a finger, while the grid is worked by fingers; else null. */
  readonly touched: ((event: PointerEvent) => CellPosition | null) | null;
  readonly onMove: (columns: number, rows: number) => void;
}

/** What lies over the canvas and scrolls with it: the mirror, the handles for fingers, the editor of a cell. */
function Overlay({ geometry, view, scroll, touched, onMove }: OverlayProps) {
  const isOpen = useSessionState((state) => state.frame !== null);
  const editing = useSessionState((state) => state.editing);
  return (
    <div
      className={classes.content}
      role="presentation"
      style={{ width: geometry.width + MARGIN_PX, height: geometry.height + MARGIN_PX }}
    >
      <Mirror geometry={geometry} view={view} scroll={scroll} />
      {touched && isOpen && !editing && <TouchHandles geometry={geometry} scroll={scroll} cellAt={touched} />}
      {editing?.place === 'cell' && (
        <div role="row">
          <div role="gridcell" aria-colindex={editing.column + 1}>
            <CellEditor editing={editing} box={boxOf(geometry, editing, scroll)} onMove={onMove} />
          </div>
        </div>
      )}
    </div>
  );
}

/** The height that the labels of the header need, where no other is set for it. */
function headerHeight({ fields, frozenRows, heights }: SheetFrame): RowHeights {
  const header = frozenRows - 1;
  if (header < 0 || heights.some(([top]) => top <= header)) return [];
  const needed = fields.map(({ label, widthPx, hidden }) =>
    hidden ? 0 : (heightOf({ text: label, widthPx, sizePx: 13, isBold: true }) ?? 0),
  );
  const heightPx = Math.min(MAX_HEADER_PX, Math.max(0, ...needed));
  return heightPx > 0 ? [[header, header, heightPx]] : [];
}

function geometryOf(frame: SheetFrame | null, { viewPx, hasTrial }: { viewPx: number; hasTrial: boolean }): Geometry {
  if (!frame) return new Geometry({ widths: [], rowCount: 0, frozenRows: 0 });
  const { rowCount, frozenRows, heights, merges } = frame;
  const widths = frame.fields.map((field) => (field.hidden ? 0 : field.widthPx));
  const trialPx = hasTrial && viewPx >= ROOM_FOR_TRIAL_PX ? TRIAL_PX : 0;
  const layout = { widths, rowCount, frozenRows, heights: [...headerHeight(frame), ...heights], merges, trialPx };
  const frozen = new Geometry({ ...layout, frozenColumns: frame.frozenColumns });
  // On a narrow screen what is frozen must leave room for the rest.
  return frozen.frozenWidth <= viewPx * MAX_FROZEN ? frozen : new Geometry(layout);
}
