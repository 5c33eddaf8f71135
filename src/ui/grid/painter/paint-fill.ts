import { rgb } from 'd3-color';
import type { Fill } from '../../../core/looks/look';
import type { Box } from '../engine/geometry';

/** Paints a fill into a box: plain, see-through, a gradient or a pattern. */
export function paintFill(context: CanvasRenderingContext2D, fill: Fill, box: Box): void {
  context.fillStyle = fillStyle(context, fill, box);
  context.fillRect(box.x, box.y, box.width, box.height);
}

function fillStyle(context: CanvasRenderingContext2D, fill: Fill, box: Box): string | CanvasGradient | CanvasPattern {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return rgb(fill.color).copy({ opacity: fill.opacity }).toString();
  if ('pattern' in fill) return patternStyle(context, fill);
  const angle = ((fill.angle ?? 0) * Math.PI) / 180;
  const [halfWidth, halfHeight] = [box.width / 2, box.height / 2];
  const reach = Math.abs(Math.cos(angle)) * halfWidth + Math.abs(Math.sin(angle)) * halfHeight;
  const [dx, dy] = [Math.cos(angle) * reach, Math.sin(angle) * reach];
  const [x, y] = [box.x + halfWidth, box.y + halfHeight];
  const gradient = context.createLinearGradient(x - dx, y - dy, x + dx, y + dy);
  gradient.addColorStop(0, fill.from);
  gradient.addColorStop(1, fill.to);
  return gradient;
}

const patterns = new Map<string, CanvasPattern | string>();
const TILE_PX = 6;

function patternStyle(
  context: CanvasRenderingContext2D,
  fill: Extract<Fill, { pattern: string }>,
): CanvasPattern | string {
  const key = `${fill.pattern} ${fill.color} ${fill.on}`;
  const known = patterns.get(key);
  if (known) return known;
  const tile = new OffscreenCanvas(TILE_PX, TILE_PX);
  const ink = tile.getContext('2d')!;
  if (fill.on) {
    ink.fillStyle = fill.on;
    ink.fillRect(0, 0, TILE_PX, TILE_PX);
  }
  ink.fillStyle = ink.strokeStyle = fill.color;
  if (fill.pattern === 'dots') ink.fillRect(2, 2, 2, 2);
  if (fill.pattern === 'lines' || fill.pattern === 'cross') ink.fillRect(0, 3, TILE_PX, 1);
  if (fill.pattern === 'cross') ink.fillRect(3, 0, 1, TILE_PX);
  if (fill.pattern === 'diagonal') for (let at = 0; at < TILE_PX; at++) ink.fillRect(at, TILE_PX - 1 - at, 1, 1);
  const made = context.createPattern(tile, 'repeat') ?? fill.color;
  patterns.set(key, made);
  return made;
}
