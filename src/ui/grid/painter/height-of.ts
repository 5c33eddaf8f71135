import type { WrappedText } from '../../../protocol/sheet-view';
import { CELL_FONT } from '../../theme/tokens';
import { LINE_HEIGHT, PADDING_PX } from './paint-cells';
import { wrapText } from './wrap-text';

/** Free height over and under the lines of a cell. */
const ROOM_PX = 8;

/** How high a row must be to show all lines of a text; null where it needs one line alone. */
export function heightOf({ text, widthPx, sizePx, isBold }: Omit<WrappedText, 'position'>): number | null {
  const context = new OffscreenCanvas(1, 1).getContext('2d')!;
  const font = `${isBold ? 650 : 420} ${sizePx}px ${CELL_FONT}`;
  const lines = wrapText(context, text, { font, roomPx: Math.max(0, widthPx - PADDING_PX * 2) }).length;
  return lines < 2 ? null : lines * Math.round(sizePx * LINE_HEIGHT) + ROOM_PX;
}
