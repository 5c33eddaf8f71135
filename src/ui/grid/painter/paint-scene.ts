import type { SheetWindow } from '../../../protocol/sheet-view';
import { HEAD_PX } from '../engine/geometry';
import { handleBox } from '../engine/hit-test';
import { paintCells } from './paint-cells';
import { paintOthers } from './paint-others';
import { paintColumnHeads, paintRowHeads } from './paint-heads';
import { paintTrial, paintTrialHead } from './paint-trial';
import type { Scene } from './scene';

/** Paints one frame. The context is scaled so that its unit is a CSS pixel. */
export function paintScene(context: CanvasRenderingContext2D, scene: Scene): void {
  const { geometry, view, scroll, tokens } = scene;
  context.textBaseline = 'middle';
  context.fillStyle = tokens.paper;
  context.fillRect(0, 0, view.width, view.height);
  if (geometry.rowCount === 0 || geometry.columnCount === 0) return;
  const { rows, columns } = partsOf(scene);
  const visible = geometry.visible(scroll, view);
  for (const row of rows) {
    for (const column of columns) paintPart(context, scene, { row, column });
    clipped(context, { x: 0, y: row.y, width: geometry.gutterWidth, height: row.height }, () => {
      const part = { area: { ...visible, top: row.top, bottom: row.bottom }, shiftY: row.shiftY, window: row.window };
      paintRowHeads(context, scene, part);
      paintTrial(context, scene, part);
    });
  }
  for (const { left, right, scrollLeft, x, width } of columns)
    clipped(context, { x, y: 0, width, height: HEAD_PX }, () =>
      paintColumnHeads(
        context,
        { ...scene, scroll: { left: scrollLeft, top: scroll.top } },
        { ...visible, left, right },
      ),
    );
  context.fillStyle = tokens.line;
  if (geometry.frozenRows > 0) context.fillRect(0, geometry.frozenHeight - 1, geometry.width - scroll.left, 1);
  if (geometry.frozenColumns > 0)
    context.fillRect(geometry.frozenWidth - 1, 0, 1, Math.min(view.height, geometry.height - scroll.top));
  context.fillStyle = tokens.paper;
  context.fillRect(0, 0, geometry.gutterWidth, HEAD_PX - 1);
  paintTrialHead(context, scene);
  paintLanding(context, scene);
}

/** Rows of the view that scroll together, or stand still. */
interface RowPart {
  readonly name: 'body' | 'frozen';
  readonly window: SheetWindow | null;
  readonly top: number;
  readonly bottom: number;
  readonly shiftY: number;
  readonly y: number;
  readonly height: number;
}

interface ColumnPart {
  readonly name: 'body' | 'frozen';
  readonly left: number;
  readonly right: number;
  readonly scrollLeft: number;
  readonly x: number;
  readonly width: number;
}

/** The parts of the view in the order in which they are painted: what is frozen stands over the rest. */
function partsOf({ geometry, view, scroll, window, frozen }: Scene): {
  readonly rows: readonly RowPart[];
  readonly columns: readonly ColumnPart[];
} {
  const { top, bottom, left, right } = geometry.visible(scroll, view);
  const { frozenRows, frozenColumns, frozenHeight, frozenWidth, gutterWidth } = geometry;
  const body: RowPart = { name: 'body', window, top, bottom, shiftY: scroll.top, y: frozenHeight, height: view.height };
  const frozenPart: RowPart = {
    name: 'frozen',
    window: frozen,
    top: 0,
    bottom: frozenRows - 1,
    shiftY: 0,
    y: HEAD_PX,
    height: frozenHeight - HEAD_PX,
  };
  const bodyColumns: ColumnPart = {
    name: 'body',
    left,
    right,
    scrollLeft: scroll.left,
    x: frozenWidth,
    width: view.width,
  };
  const frozenColumnsPart: ColumnPart = {
    name: 'frozen',
    left: 0,
    right: frozenColumns - 1,
    scrollLeft: 0,
    x: gutterWidth,
    width: frozenWidth - gutterWidth,
  };
  return {
    rows: [...(geometry.rowCount > frozenRows ? [body] : []), ...(frozenRows > 0 ? [frozenPart] : [])],
    columns: [bodyColumns, ...(frozenColumns > 0 ? [frozenColumnsPart] : [])],
  };
}

/** A part of the view: scrolled or frozen, by rows and by columns. */
interface ViewPart {
  readonly row: RowPart;
  readonly column: ColumnPart;
}

function paintPart(context: CanvasRenderingContext2D, scene: Scene, part: ViewPart): void {
  const { geometry, tokens } = scene;
  const { top, bottom, shiftY, y, height, window } = part.row;
  const { left, right, scrollLeft, x, width } = part.column;
  clipped(context, { x, y, width, height }, () => {
    context.fillStyle = tokens.sheet;
    const end = part.column.name === 'frozen' ? x + width : geometry.width - scrollLeft;
    context.fillRect(x, y, end - x, part.row.name === 'frozen' ? height : geometry.height - shiftY - y);
    const scrolled = { ...scene, scroll: { left: scrollLeft, top: shiftY } };
    if (window) paintCells(context, scrolled, { window, area: { left, right, top, bottom }, shiftY });
    paintReferences(context, scene);
    paintOthers(context, scene);
    for (const area of scene.also)
      paintSelection(context, { ...scene, selected: area, active: { column: area.left, position: area.top } }, part);
    paintSelection(context, scene, part);
    paintHandle(context, scene);
  });
}

/** The line where fields or rows would land that are being dragged. */
function paintLanding(context: CanvasRenderingContext2D, { geometry, scroll, tokens, view, landing }: Scene): void {
  if (!landing) return;
  const { axis, to } = landing;
  context.fillStyle = tokens.marigold;
  if (axis === 'columns') {
    const x = geometry.columnLeft(to) - (to < geometry.frozenColumns ? 0 : scroll.left);
    context.fillRect(x - 2, 0, 3, Math.min(view.height, geometry.height));
  } else {
    const y = geometry.rowTop(to) - (to < geometry.frozenRows ? 0 : scroll.top);
    context.fillRect(0, y - 2, Math.min(view.width, geometry.width), 3);
  }
}

/** The tint over the selected cells and the outline of the range, in one part of the view. */
function paintSelection(
  context: CanvasRenderingContext2D,
  { geometry, scroll, tokens, selected, active }: Scene,
  part: ViewPart,
): void {
  if (!selected || !active) return;
  const area = geometry.shownArea(selected);
  const isRow = part.row.name === 'frozen' ? area.top < geometry.frozenRows : area.bottom >= geometry.frozenRows;
  const isColumn =
    part.column.name === 'frozen' ? area.left < geometry.frozenColumns : area.right >= geometry.frozenColumns;
  if (!isRow || !isColumn) return;
  const isOne = area !== selected || (selected.left === selected.right && selected.top === selected.bottom);
  const box = geometry.boxInView(area, scroll);
  // An edge that lies in another part is drawn there.
  const y = part.row.name === 'body' && area.top < geometry.frozenRows ? geometry.frozenHeight - 4 : box.y;
  const x = part.column.name === 'body' && area.left < geometry.frozenColumns ? geometry.frozenWidth - 4 : box.x;
  const width =
    part.column.name === 'frozen' && area.right >= geometry.frozenColumns
      ? geometry.frozenWidth + 4 - x
      : box.x + box.width - x;
  const height = box.y + box.height - y;
  if (!isOne) {
    context.fillStyle = tokens.selectionTint;
    context.fillRect(x, y, width - 1, height - 1);
  }
  context.strokeStyle = tokens.selection;
  context.lineWidth = 2;
  context.strokeRect(Math.round(x), Math.round(y), width - 1, height - 1);
  if (isOne) return;
  const one = geometry.boxInView(geometry.areaOf(active), scroll);
  context.lineWidth = 1;
  context.strokeRect(Math.round(one.x) + 1.5, Math.round(one.y) + 1.5, one.width - 4, one.height - 4);
}

/** The cells that a formula refers to: outlined and tinted in the colour of the reference. */
function paintReferences(context: CanvasRenderingContext2D, { geometry, scroll, references }: Scene): void {
  for (const { area, color } of references) {
    if (area.left >= geometry.columnCount || area.top >= geometry.rowCount) continue;
    const within = {
      ...area,
      right: Math.min(area.right, geometry.columnCount - 1),
      bottom: Math.min(area.bottom, geometry.rowCount - 1),
    };
    const box = geometry.boxInView(within, scroll);
    context.globalAlpha = 0.1;
    context.fillStyle = color;
    context.fillRect(box.x, box.y, box.width - 1, box.height - 1);
    context.globalAlpha = 1;
    context.strokeStyle = color;
    context.lineWidth = 2;
    context.strokeRect(Math.round(box.x), Math.round(box.y), box.width - 1, box.height - 1);
  }
}

/** The handle at the corner of the selection by which it is filled on, and the outline of where a drag would fill. */
function paintHandle(context: CanvasRenderingContext2D, { geometry, scroll, tokens, selected, filling }: Scene): void {
  if (!selected) return;
  const box = handleBox(geometry, selected, scroll);
  context.fillStyle = tokens.sheet;
  context.fillRect(box.x - 1, box.y - 1, box.width + 2, box.height + 2);
  context.fillStyle = tokens.selection;
  context.fillRect(box.x, box.y, box.width, box.height);
  if (!filling) return;
  const area = geometry.boxInView(filling, scroll);
  context.strokeStyle = tokens.selection;
  context.lineWidth = 1;
  context.setLineDash([4, 3]);
  context.strokeRect(Math.round(area.x) + 0.5, Math.round(area.y) + 0.5, area.width - 2, area.height - 2);
  context.setLineDash([]);
}

function clipped(
  context: CanvasRenderingContext2D,
  box: { x: number; y: number; width: number; height: number },
  paint: () => void,
): void {
  context.save();
  context.beginPath();
  context.rect(box.x, box.y, box.width, box.height);
  context.clip();
  paint();
  context.restore();
}
