import { readableText } from '../../../core/looks/readable-text';
import { CELL_FONT } from '../../theme/tokens';
import type { Scene } from './scene';

const TAG_PX = 15;
const TAG_FONT = `600 11px ${CELL_FONT}`;

/** The selections of others: an outline in their colour, with their name over its corner. */
export function paintOthers(context: CanvasRenderingContext2D, { geometry, scroll, others }: Scene): void {
  for (const { area, color, name } of others) {
    if (area.left >= geometry.columnCount || area.top >= geometry.rowCount) continue;
    const within = {
      ...area,
      right: Math.min(area.right, geometry.columnCount - 1),
      bottom: Math.min(area.bottom, geometry.rowCount - 1),
    };
    const box = geometry.boxInView(geometry.shownArea(within), scroll);
    context.strokeStyle = color;
    context.lineWidth = 2;
    context.strokeRect(Math.round(box.x), Math.round(box.y), box.width - 1, box.height - 1);
    context.font = TAG_FONT;
    const width = context.measureText(name).width + 8;
    const x = Math.round(box.x) + box.width - width;
    const y = Math.round(box.y) - TAG_PX + 1;
    context.fillStyle = color;
    context.fillRect(x, y, width, TAG_PX);
    context.fillStyle = readableText(color);
    context.textAlign = 'left';
    context.fillText(name, x + 4, y + TAG_PX / 2 + 0.5);
  }
}
