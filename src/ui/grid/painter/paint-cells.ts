import { SIDES, type BorderSide, type Fill, type Side } from '../../../core/looks/look';
import type { Area, PaintedLook, SheetWindow } from '../../../protocol/engine-messages';
import { CELL_FONT } from '../../theme/tokens';
import { ROW_PX, type Box } from '../engine/geometry';
import { fitText } from './fit-text';
import { paintFill } from './paint-fill';
import { sceneCell, type Scene, type SceneCell } from './scene';

const PADDING_PX = 7;
const FADED = 0.22;

/** Paints the cells of a window that lie in an area of the sheet, `shiftY` pixels up. Fills first, then lines, so that a border is never half covered. */
export function paintCells(
  context: CanvasRenderingContext2D,
  scene: Scene,
  { window, area, shiftY }: { window: SheetWindow; area: Area; shiftY: number },
): void {
  eachCell(scene, { window, area, shiftY }, (cell, box) => paintGround(context, scene, { cell, box }));
  paintLines(context, scene, { area, shiftY });
  eachCell(scene, { window, area, shiftY }, (cell, box) => {
    context.globalAlpha = cell.faded ? FADED : 1;
    for (const side of SIDES) paintBorder(context, side, { border: cell.look.properties[`border.${side}`] as BorderSide | undefined, box });
    if (cell.text !== '') paintText(context, scene, { cell, box });
  });
  context.globalAlpha = 1;
}

function eachCell(
  { geometry, scroll }: Scene,
  { window, area, shiftY }: { window: SheetWindow; area: Area; shiftY: number },
  paint: (cell: SceneCell, box: Box) => void,
): void {
  for (let column = area.left; column <= area.right; column++) {
    const x = Math.round(geometry.columnLeft(column) - scroll.left);
    const width = geometry.columnWidth(column);
    for (let position = area.top; position <= area.bottom; position++) {
      const cell = sceneCell(window, column, position);
      if (cell) paint(cell, { x, y: Math.round(geometry.rowTop(position) - shiftY), width, height: ROW_PX });
    }
  }
}

function paintGround(context: CanvasRenderingContext2D, { tokens }: Scene, { cell, box }: { cell: SceneCell; box: Box }): void {
  if (cell.isHeader) paintFill(context, tokens.head, box);
  const fill = cell.look.properties.fill as Fill | undefined;
  if (fill === undefined) return;
  context.globalAlpha = cell.faded ? FADED : 1;
  paintFill(context, fill, box);
  context.globalAlpha = 1;
}

function paintLines(context: CanvasRenderingContext2D, { geometry, scroll, tokens }: Scene, { area, shiftY }: { area: Area; shiftY: number }): void {
  const left = geometry.columnLeft(area.left) - scroll.left;
  const right = geometry.columnLeft(area.right + 1) - scroll.left;
  const top = geometry.rowTop(area.top) - shiftY;
  const bottom = geometry.rowTop(area.bottom + 1) - shiftY;
  context.fillStyle = tokens.hairline;
  for (let column = area.left; column <= area.right; column++)
    context.fillRect(Math.round(geometry.columnLeft(column + 1) - scroll.left) - 1, top, 1, bottom - top);
  for (let position = area.top; position <= area.bottom; position++)
    context.fillRect(left, Math.round(geometry.rowTop(position + 1) - shiftY) - 1, right - left, 1);
}

function paintText(context: CanvasRenderingContext2D, { tokens }: Scene, { cell, box }: { cell: SceneCell; box: Box }): void {
  const { properties } = cell.look;
  context.font = cellFont(cell.look, cell.isHeader);
  context.fillStyle = (properties.text as string | undefined) ?? tokens.ink;
  const text = fitText(context, cell.text.replaceAll('\n', ' '), box.width - PADDING_PX * 2);
  const isRight = cell.align === 1;
  const isMiddle = cell.align === 2 && !cell.isHeader;
  context.textAlign = isRight ? 'right' : isMiddle ? 'center' : 'left';
  const x = isRight ? box.x + box.width - PADDING_PX : isMiddle ? box.x + box.width / 2 : box.x + PADDING_PX;
  const y = box.y + box.height / 2 + 0.5;
  context.fillText(text, x, y);
  if (properties.underline !== true && properties.strike !== true) return;
  const width = context.measureText(text).width;
  const from = isRight ? x - width : isMiddle ? x - width / 2 : x;
  if (properties.underline === true) context.fillRect(from, Math.round(y + 6), width, 1);
  if (properties.strike === true) context.fillRect(from, Math.round(y), width, 1);
}

function cellFont({ properties }: PaintedLook, isHeader: boolean): string {
  const weight = properties.bold === true || (properties.bold === undefined && isHeader) ? 650 : 420;
  return `${properties.italic === true ? 'italic ' : ''}${weight} 13px ${CELL_FONT}`;
}

const DASHES: Record<BorderSide['style'], number[]> = { solid: [], double: [], dashed: [5, 3], dotted: [1.5, 2] };

function paintBorder(context: CanvasRenderingContext2D, side: Side, { border, box }: { border: BorderSide | undefined; box: Box }): void {
  if (!border) return;
  const { x, y, width, height } = box;
  context.strokeStyle = border.color;
  const strokes = border.style === 'double' ? [0.5, 2.5] : [border.width / 2];
  context.lineWidth = border.style === 'double' ? 1 : border.width;
  context.setLineDash(DASHES[border.style]);
  for (const inset of strokes) {
    context.beginPath();
    if (side === 'top' || side === 'bottom') {
      const at = side === 'top' ? y + inset : y + height - 1 - inset;
      context.moveTo(x, at);
      context.lineTo(x + width - 1, at);
    } else {
      const at = side === 'left' ? x + inset : x + width - 1 - inset;
      context.moveTo(at, y);
      context.lineTo(at, y + height - 1);
    }
    context.stroke();
  }
  context.setLineDash([]);
}
