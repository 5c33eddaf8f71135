import type { BorderSide, LookBar, Side } from '../../../core/looks/look';
import type { Style } from '../../../core/looks/style';
import type { Area, SheetWindow } from '../../../protocol/sheet-view';
import { CELL_FONTS } from '../../theme/tokens';
import type { Box } from '../engine/geometry';
import { fitText } from './fit-text';
import { paintFill } from './paint-fill';
import { ICON_ROOM_PX, paintIcon } from './paint-icon';
import { painted, sceneCell, type Scene, type SceneCell } from './scene';
import { barColor, inkFor } from './inks';
import { wrapText } from './wrap-text';

/** Free width at each side of a cell. */
export const PADDING_PX = 7;
/** The height of a line of text, in heights of its letters. */
export const LINE_HEIGHT = 1.35;
const FADED = 0.22;
const INDENT_PX = 16;
/** Width of the line at the left of cells that are open for entries. */
const OPEN_PX = 3;

interface Part {
  readonly window: SheetWindow;
  readonly area: Area;
  readonly shiftY: number;
}

interface Painted {
  readonly cell: SceneCell;
  readonly box: Box;
}

/**
 * Paints the cells of a window that lie in an area of the sheet, `shiftY` pixels up. Fills first, then lines, so that a
 * border is never half covered.
 */
export function paintCells(context: CanvasRenderingContext2D, scene: Scene, part: Part): void {
  eachCell(scene, part, (cell, box) => paintGround(context, scene, { cell, box }));
  paintLines(context, scene, part);
  for (const merged of scene.geometry.merges) paintMergedGround(context, scene, { merged, part });
  const borders = new Map<string, { border: BorderSide; faded: boolean; lines: [Side, Box][] }>();
  eachCell(scene, part, (cell, box) => {
    context.globalAlpha = cell.faded ? FADED : 1;
    for (const [side, border] of painted(cell.look).borders) {
      const key = `${border.color} ${border.style} ${border.width} ${cell.faded}`;
      const alike = borders.get(key);
      if (alike) alike.lines.push([side, box]);
      else borders.set(key, { border, faded: cell.faded, lines: [[side, box]] });
    }
    const icon = cell.look.properties.icon;
    if (icon) paintIcon(context, icon, { box, tokens: scene.tokens, ink: inkOf(scene, cell) });
    if (cell.text !== '')
      paintText(context, scene, {
        cell,
        box: icon ? { ...box, x: box.x + ICON_ROOM_PX, width: box.width - ICON_ROOM_PX } : box,
      });
  });
  // Over fills and borders: open cells must be seen whatever the rules paint.
  eachCell(scene, part, (cell, { x, y, height }) => {
    if (cell.isOpen) paintFill(context, scene.tokens.marigold, { x, y: y + 4, width: OPEN_PX, height: height - 9 });
  });
  for (const { border, faded, lines } of borders.values()) {
    context.globalAlpha = faded ? FADED : 1;
    paintBorders(context, border, lines);
  }
  context.globalAlpha = 1;
}

function eachCell(
  { geometry, scroll }: Scene,
  { window, area, shiftY }: Part,
  paint: (cell: SceneCell, box: Box) => void,
): void {
  const rows = geometry.rowsShown(area.top, area.bottom);
  for (let column = area.left; column <= area.right; column++) {
    const x = Math.round(geometry.columnLeft(column) - scroll.left);
    const width = geometry.columnWidth(column);
    if (width === 0) continue;
    for (const position of rows) {
      const cell = sceneCell(window, column, position);
      const merged = geometry.merges.length ? geometry.mergeAt({ column, position }) : undefined;
      if (!cell || (merged && (merged.left !== column || merged.top !== position))) continue;
      const y = Math.round(geometry.rowTop(position) - shiftY);
      if (merged) paint(cell, mergedBox(geometry, merged, { left: scroll.left, top: shiftY }));
      else paint(cell, { x, y, width, height: geometry.rowHeight(position) });
    }
  }
  // Merged cells that begin before the area reach into it.
  for (const merged of geometry.merges) {
    const isBefore =
      (merged.left < area.left || merged.top < area.top) && merged.right >= area.left && merged.bottom >= area.top;
    const cell =
      isBefore && merged.left <= area.right && merged.top <= area.bottom && sceneCell(window, merged.left, merged.top);
    if (cell) paint(cell, mergedBox(geometry, merged, { left: scroll.left, top: shiftY }));
  }
}

function mergedBox(
  geometry: Scene['geometry'],
  merged: Area,
  shift: { readonly left: number; readonly top: number },
): Box {
  const [x, y] = [
    Math.round(geometry.columnLeft(merged.left) - shift.left),
    Math.round(geometry.rowTop(merged.top) - shift.top),
  ];
  return {
    x,
    y,
    width: geometry.columnLeft(merged.right + 1) - shift.left - x,
    height: geometry.rowTop(merged.bottom + 1) - shift.top - y,
  };
}

function paintGround(context: CanvasRenderingContext2D, scene: Scene, { cell, box }: Painted): void {
  const { tokens } = scene;
  if (cell.isHeader || cell.isTotal) paintFill(context, tokens.head, box);
  else if (cell.isBanded) paintFill(context, tokens.band, box);
  const { fill, ground } = painted(cell.look);
  context.globalAlpha = cell.faded ? FADED : 1;
  if (ground !== undefined) paintFill(context, ground, box);
  if (fill !== undefined) paintFill(context, fill, box);
  if (cell.bar) paintBar(context, { ...cell.bar, color: barColor(cell.bar.color, inkOf(scene, cell), tokens) }, box);
  context.globalAlpha = 1;
}

/** Covers the lines that run through merged cells. */
function paintMergedGround(
  context: CanvasRenderingContext2D,
  scene: Scene,
  { merged, part }: { merged: Area; part: Part },
): void {
  const { geometry, scroll, tokens } = scene;
  const cell = sceneCell(part.window, merged.left, merged.top);
  if (!cell || merged.top > part.area.bottom || merged.bottom < part.area.top) return;
  const { x, y, ...size } = mergedBox(geometry, merged, { left: scroll.left, top: part.shiftY });
  const [width, height] = [size.width - 1, size.height - 1];
  context.fillStyle = tokens.sheet;
  context.fillRect(x, y, width, height);
  paintGround(context, scene, { cell, box: { x, y, width, height } });
}

function paintLines(
  context: CanvasRenderingContext2D,
  { geometry, scroll, tokens }: Scene,
  { area, shiftY }: Part,
): void {
  const left = geometry.columnLeft(area.left) - scroll.left;
  const right = geometry.columnLeft(area.right + 1) - scroll.left;
  const top = geometry.rowTop(area.top) - shiftY;
  const bottom = geometry.rowTop(area.bottom + 1) - shiftY;
  context.fillStyle = tokens.hairline;
  for (let column = area.left; column <= area.right; column++)
    context.fillRect(Math.round(geometry.columnLeft(column + 1) - scroll.left) - 1, top, 1, bottom - top);
  for (const position of geometry.rowsShown(area.top, area.bottom))
    context.fillRect(left, Math.round(geometry.rowTop(position + 1) - shiftY) - 1, right - left, 1);
}

/** The colour of what stands in a cell. */
const inkOf = ({ tokens }: Scene, { look }: SceneCell): string => inkFor(painted(look), tokens);

/** Where lines of text begin, from the edge that they are aligned to. */
const ALIGNS = { start: 'left', center: 'center', end: 'right' } as const;

function paintText(context: CanvasRenderingContext2D, scene: Scene, { cell, box }: Painted): void {
  const { style } = cell.look;
  const look = painted(cell.look);
  const sizePx = style.sizePx ?? 13;
  context.fillStyle = inkOf(scene, cell);
  const indent = cell.level * INDENT_PX;
  const room = { font: cellFont(cell, sizePx), roomPx: Math.max(0, box.width - PADDING_PX * 2 - indent) };
  const lines = cell.wraps
    ? wrapText(context, cell.text, room)
    : [fitText(context, cell.text.replaceAll('\n', ' '), room)];
  const align = style.align
    ? ALIGNS[style.align]
    : cell.align === 1
      ? 'right'
      : cell.align === 2 && !cell.isHeader
        ? 'center'
        : 'left';
  context.textAlign = align;
  const x =
    align === 'right'
      ? box.x + box.width - PADDING_PX
      : align === 'center'
        ? box.x + box.width / 2
        : box.x + PADDING_PX + indent;
  const linePx = Math.round(sizePx * LINE_HEIGHT);
  const shown = lines.slice(0, Math.max(1, Math.floor((box.height - 4) / linePx)));
  shown.forEach((line, at) => {
    const y = firstLine(style.stand, box, shown.length * linePx) + linePx * (at + 0.5) + 0.5;
    context.fillText(line, x, y);
    if (look.underline || look.strike) paintStrokes(context, look, { line, x, y, align });
  });
}

function firstLine(stand: Style['stand'], box: Box, heightPx: number): number {
  if (stand === 'top') return box.y + 3;
  return stand === 'bottom' ? box.y + box.height - heightPx - 3 : box.y + (box.height - heightPx) / 2;
}

function paintStrokes(
  context: CanvasRenderingContext2D,
  { underline, strike }: { underline: boolean; strike: boolean },
  { line, x, y, align }: { line: string; x: number; y: number; align: CanvasTextAlign },
): void {
  const { width } = context.measureText(line);
  const from = align === 'right' ? x - width : align === 'center' ? x - width / 2 : x;
  if (underline) context.fillRect(from, Math.round(y + 6), width, 1);
  if (strike) context.fillRect(from, Math.round(y), width, 1);
}

function cellFont({ look, isHeader, isTotal }: SceneCell, sizePx: number): string {
  const { bold, italic } = painted(look);
  const weight = bold === true || (bold === undefined && (isHeader || isTotal)) ? 650 : 420;
  return `${italic ? 'italic ' : ''}${weight} ${sizePx}px ${CELL_FONTS[look.style.family ?? 'plain']}`;
}

/** A bar across the lower part of a cell, so that the number on it reads. */
function paintBar(context: CanvasRenderingContext2D, { start, end, axis, color, style }: LookBar, box: Box): void {
  const [left, right] = [box.x + 3, box.x + box.width - 4];
  const at = (share: number): number => left + share * (right - left);
  const [from, to] = [at(Math.min(start, end)), at(Math.max(start, end))];
  const fill = style === 'gradient' ? { from: color, to: `${color}55` } : color;
  if (to > from) paintFill(context, fill, { x: from, y: box.y + 4, width: to - from, height: box.height - 9 });
  if (axis !== null)
    paintFill(context, color, { x: Math.round(at(axis)), y: box.y + 2, width: 1, height: box.height - 5 });
}

const DASHES: Record<BorderSide['style'], number[]> = { solid: [], double: [], dashed: [5, 3], dotted: [1.5, 2] };

/** Paints borders that look alike in one stroke: a stroke of its own for each is what would take longest. */
function paintBorders(
  context: CanvasRenderingContext2D,
  border: BorderSide,
  lines: readonly (readonly [Side, Box])[],
): void {
  context.strokeStyle = border.color;
  const strokes = border.style === 'double' ? [0.5, 2.5] : [border.width / 2];
  context.lineWidth = border.style === 'double' ? 1 : border.width;
  context.setLineDash(DASHES[border.style]);
  context.beginPath();
  for (const inset of strokes) {
    for (const [side, { x, y, width, height }] of lines) {
      if (side === 'top' || side === 'bottom') {
        const at = side === 'top' ? y + inset : y + height - 1 - inset;
        context.moveTo(x, at);
        context.lineTo(x + width, at);
      } else {
        const at = side === 'left' ? x + inset : x + width - 1 - inset;
        context.moveTo(at, y);
        context.lineTo(at, y + height);
      }
    }
  }
  context.stroke();
  context.setLineDash([]);
}
