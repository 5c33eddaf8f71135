import { CELL_FONT } from '../../theme/tokens';

const ROOM_PX = 18;

/** How wide a field must be for texts, in the heavier letters of a header so that both fit. */
export function widthOf(texts: readonly string[]): number {
  const context = new OffscreenCanvas(1, 1).getContext('2d')!;
  context.font = `650 13px ${CELL_FONT}`;
  const widest = Math.max(0, ...texts.map((text) => context.measureText(text).width));
  return Math.min(600, Math.max(40, Math.ceil(widest) + ROOM_PX));
}
