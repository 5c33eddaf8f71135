import { GUTTER_PX, HEAD_PX } from '../engine/geometry';
import { handleBox } from '../engine/hit-test';
import type { Area } from '../../../protocol/engine-messages';
import { paintCells } from './paint-cells';
import { paintColumnHeads, paintRowHeads } from './paint-heads';
import type { Scene } from './scene';

/** Paints one frame. The context is scaled so that its unit is a CSS pixel. */
export function paintScene(context: CanvasRenderingContext2D, scene: Scene): void {
  const { geometry, view, scroll, tokens, window, frozen } = scene;
  context.textBaseline = 'middle';
  context.fillStyle = tokens.paper;
  context.fillRect(0, 0, view.width, view.height);
  if (geometry.rowCount === 0 || geometry.columnCount === 0) return;
  const visible = geometry.visible(scroll, view);
  const top = geometry.frozenHeight;
  const hasBody = geometry.rowCount > geometry.frozenRows;
  if (hasBody) {
    clipped(context, { x: GUTTER_PX, y: top, width: view.width, height: view.height }, () => {
      context.fillStyle = tokens.sheet;
      context.fillRect(GUTTER_PX, top, geometry.width - scroll.left - GUTTER_PX, geometry.height - scroll.top - top);
      if (window) paintCells(context, scene, { window, area: visible, shiftY: scroll.top });
      paintReferences(context, scene);
      paintSelection(context, scene, 'body');
      paintHandle(context, scene);
    });
    clipped(context, { x: 0, y: top, width: GUTTER_PX, height: view.height }, () =>
      paintRowHeads(context, scene, { area: visible, shiftY: scroll.top }),
    );
  }
  if (geometry.frozenRows > 0) paintFrozen(context, scene, { ...visible, top: 0, bottom: geometry.frozenRows - 1 });
  clipped(context, { x: GUTTER_PX, y: 0, width: view.width, height: HEAD_PX }, () => paintColumnHeads(context, scene, visible));
  context.fillStyle = tokens.paper;
  context.fillRect(0, 0, GUTTER_PX, HEAD_PX - 1);

  function paintFrozen(ink: CanvasRenderingContext2D, of: Scene, area: Area): void {
    clipped(ink, { x: GUTTER_PX, y: HEAD_PX, width: view.width, height: top - HEAD_PX }, () => {
      ink.fillStyle = tokens.sheet;
      ink.fillRect(GUTTER_PX, HEAD_PX, view.width, top - HEAD_PX);
      if (frozen) paintCells(ink, of, { window: frozen, area, shiftY: 0 });
      paintReferences(ink, of);
      paintSelection(ink, of, 'frozen');
    });
    clipped(ink, { x: 0, y: HEAD_PX, width: GUTTER_PX, height: top - HEAD_PX }, () => paintRowHeads(ink, of, { area, shiftY: 0 }));
    ink.fillStyle = tokens.line;
    ink.fillRect(0, top - 1, geometry.width - scroll.left, 1);
  }
}

/** The tint over the selected cells and the outline of the range, in the part that scrolls or the part that does not. */
function paintSelection(context: CanvasRenderingContext2D, { geometry, scroll, tokens, selected, active }: Scene, part: 'body' | 'frozen'): void {
  if (!selected || !active) return;
  const isPart = part === 'frozen' ? selected.top < geometry.frozenRows : selected.bottom >= geometry.frozenRows;
  if (!isPart) return;
  const area = geometry.shownArea(selected);
  const isOne = area !== selected || (selected.left === selected.right && selected.top === selected.bottom);
  const box = geometry.boxInView(area, scroll);
  const from = part === 'body' && selected.top < geometry.frozenRows ? geometry.frozenHeight - 4 : box.y;
  const height = box.y + box.height - from;
  if (!isOne) {
    context.fillStyle = tokens.selectionTint;
    context.fillRect(box.x, from, box.width - 1, height - 1);
  }
  context.strokeStyle = tokens.selection;
  context.lineWidth = 2;
  context.strokeRect(Math.round(box.x), Math.round(from), box.width - 1, height - 1);
  if (isOne) return;
  const one = geometry.boxInView(geometry.areaOf(active), scroll);
  context.lineWidth = 1;
  context.strokeRect(Math.round(one.x) + 1.5, Math.round(one.y) + 1.5, one.width - 4, one.height - 4);
}

/** The cells that a formula refers to: outlined and tinted in the colour of the reference. */
function paintReferences(context: CanvasRenderingContext2D, { geometry, scroll, references }: Scene): void {
  for (const { area, color } of references) {
    if (area.left >= geometry.columnCount || area.top >= geometry.rowCount) continue;
    const within = { ...area, right: Math.min(area.right, geometry.columnCount - 1), bottom: Math.min(area.bottom, geometry.rowCount - 1) };
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

function clipped(context: CanvasRenderingContext2D, box: { x: number; y: number; width: number; height: number }, paint: () => void): void {
  context.save();
  context.beginPath();
  context.rect(box.x, box.y, box.width, box.height);
  context.clip();
  paint();
  context.restore();
}
