import { columnLetters } from '../../../core/sheet/address';
import { CELL_FONT } from '../../theme/tokens';
import { FOLD_PX, GUTTER_PX, HEAD_PX } from '../engine/geometry';
import type { Area, SheetWindow } from '../../../protocol/sheet-view';
import type { Scene } from './scene';

/** Paints the strip of column letters over the visible columns. */
export function paintColumnHeads(
  context: CanvasRenderingContext2D,
  { geometry, scroll, tokens, view, selected }: Scene,
  visible: Area,
): void {
  context.fillStyle = tokens.paper;
  context.fillRect(0, 0, view.width, HEAD_PX);
  context.textAlign = 'center';
  for (let column = visible.left; column <= visible.right; column++) {
    const x = Math.round(geometry.columnLeft(column) - scroll.left);
    const width = geometry.columnWidth(column);
    if (width === 0) continue;
    const isSelected = selected !== null && column >= selected.left && column <= selected.right;
    context.font = headFont(isSelected);
    context.fillStyle = isSelected ? tokens.ink : tokens.inkSecond;
    context.fillText(columnLetters(column), x + width / 2, HEAD_PX / 2 + 0.5);
    if (isSelected) paintStroke(context, tokens.marigold, { x: x + 4, y: HEAD_PX - 3, width: width - 9, height: 2 });
  }
  context.fillStyle = tokens.line;
  context.fillRect(0, HEAD_PX - 1, view.width, 1);
}

/** Rows of a part of the view, `shiftY` pixels up, and what stands in them. */
export interface HeadsPart {
  readonly area: Area;
  readonly shiftY: number;
  readonly window: SheetWindow | null;
}

/** Paints row numbers for an area, `shiftY` pixels up. */
export function paintRowHeads(
  context: CanvasRenderingContext2D,
  { geometry, tokens, selected, folds }: Scene,
  { area, shiftY }: HeadsPart,
): void {
  const top = geometry.rowTop(area.top) - shiftY;
  const height = geometry.rowTop(area.bottom + 1) - shiftY - top;
  context.fillStyle = tokens.paper;
  context.fillRect(0, top, geometry.gutterWidth, height);
  context.textAlign = 'right';
  for (const position of geometry.rowsShown(area.top, area.bottom)) {
    const y = Math.round(geometry.rowTop(position) - shiftY);
    const rowPx = geometry.rowHeight(position);
    const isSelected = selected !== null && position >= selected.top && position <= selected.bottom;
    context.font = headFont(isSelected);
    context.fillStyle = isSelected ? tokens.ink : tokens.inkSecond;
    context.fillText(String(position + 1), GUTTER_PX - 10, y + rowPx / 2 + 0.5);
    if (isSelected) paintStroke(context, tokens.marigold, { x: GUTTER_PX - 4, y: y + 4, width: 2, height: rowPx - 9 });
  }
  for (const { position, folded } of folds) {
    if (position < area.top || position > area.bottom || geometry.rowHeight(position) === 0) continue;
    paintFold(
      context,
      { x: FOLD_PX / 2, y: geometry.rowTop(position) - shiftY + geometry.rowHeight(position) / 2 },
      { folded, color: tokens.inkSecond },
    );
  }
  context.fillStyle = tokens.line;
  context.fillRect(geometry.gutterWidth - 1, top, 1, height);
}

/** A triangle that points at the rows beneath, or to the side where they are folded away. */
function paintFold(
  context: CanvasRenderingContext2D,
  { x, y }: { x: number; y: number },
  { folded, color }: { folded: boolean; color: string },
): void {
  context.fillStyle = color;
  context.beginPath();
  context.moveTo(x - 4, folded ? y - 5 : y - 3);
  context.lineTo(folded ? x + 4 : x + 5, folded ? y : y - 3);
  context.lineTo(folded ? x - 4 : x + 0.5, folded ? y + 5 : y + 4);
  context.fill();
}

const headFont = (isSelected: boolean): string => `${isSelected ? 600 : 420} 11px ${CELL_FONT}`;

function paintStroke(
  context: CanvasRenderingContext2D,
  color: string,
  box: { x: number; y: number; width: number; height: number },
): void {
  context.fillStyle = color;
  context.fillRect(box.x, box.y, box.width, box.height);
}
