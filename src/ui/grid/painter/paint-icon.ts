import type { IconSet } from '../../../core/looks/icon-sets';
import type { LookIcon } from '../../../core/looks/look';
import type { Tokens } from '../../theme/tokens';
import type { Box } from '../engine/geometry';
import { ICON_PATHS } from './icon-paths';

/** Side of an icon, and the room it takes from its cell's text. */
const SIZE_PX = 15;
export const ICON_ROOM_PX = SIZE_PX + 4;

interface Ready {
  readonly drawn: Path2D;
  readonly filled: Path2D;
}

/** Paths are read once an icon. */
const ready = new Map<string, Ready>();

function pathsFor(set: IconSet, index: number): Ready {
  const key = `${set} ${index}`;
  let found = ready.get(key);
  if (!found) {
    const { drawn, filled } = ICON_PATHS[set][index]!;
    ready.set(key, (found = { drawn: new Path2D(drawn.join('')), filled: new Path2D(filled.join('')) }));
  }
  return found;
}

/** Paints an icon at the start of a cell, in the middle of its height. */
export function paintIcon(
  context: CanvasRenderingContext2D,
  { set, index }: LookIcon,
  { box, tokens, ink }: { box: Box; tokens: Tokens; ink: string },
): void {
  const icon = ICON_PATHS[set]?.[index];
  if (!icon) return;
  const { drawn, filled } = pathsFor(set, index);
  const color = icon.tone ? tokens.tones[icon.tone] : ink;
  const scale = SIZE_PX / 24;
  const [x, y] = [box.x + 5, Math.round(box.y + (box.height - SIZE_PX) / 2)];
  context.translate(x, y);
  context.scale(scale, scale);
  context.lineCap = 'round';
  context.lineJoin = 'round';
  context.lineWidth = 2.2;
  context.strokeStyle = color;
  context.fillStyle = color;
  if (icon.drawn.length) context.stroke(drawn);
  if (icon.filled.length) context.fill(filled);
  context.scale(1 / scale, 1 / scale);
  context.translate(-x, -y);
}
