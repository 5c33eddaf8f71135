import { CELL_FONT } from '../../theme/tokens';
import { GUTTER_PX, HEAD_PX } from '../engine/geometry';
import { fitText } from './fit-text';
import type { HeadsPart } from './paint-heads';
import type { Scene } from './scene';

const PADDING_PX = 8;

/**
 * Paints what the formula on the bench gives for each record, beside the row numbers, with a stroke where the record
 * meets it.
 */
export function paintTrial(
  context: CanvasRenderingContext2D,
  { geometry, tokens }: Scene,
  { area, shiftY, window }: HeadsPart,
): void {
  const width = geometry.gutterWidth - GUTTER_PX;
  if (width === 0 || !window) return;
  context.textAlign = 'left';
  window.rows.forEach((position, row) => {
    const cell = window.trial?.cells[row];
    if (!cell || position < area.top || position > area.bottom) return;
    const y = Math.round(geometry.rowTop(position) - shiftY);
    const rowPx = geometry.rowHeight(position);
    const font = `${cell.verdict === 'meets' ? 600 : 420} 12px ${CELL_FONT}`;
    context.fillStyle =
      cell.verdict === 'fails' ? tokens.error : cell.verdict === 'meets' ? tokens.ink : tokens.inkSecond;
    const text = fitText(context, cell.text, { font, roomPx: width - 2 * PADDING_PX });
    context.fillText(text, GUTTER_PX + PADDING_PX, y + rowPx / 2 + 0.5);
    if (cell.verdict !== 'meets') return;
    context.fillStyle = tokens.marigold;
    context.fillRect(GUTTER_PX, y + 4, 2, rowPx - 9);
  });
}

/** Paints what stands over the trial column. */
export function paintTrialHead(context: CanvasRenderingContext2D, { geometry, tokens, trialHead }: Scene): void {
  if (geometry.gutterWidth === GUTTER_PX || trialHead === '') return;
  context.textAlign = 'left';
  context.font = `420 11px ${CELL_FONT}`;
  context.fillStyle = tokens.inkSecond;
  context.fillText(trialHead, GUTTER_PX + PADDING_PX, HEAD_PX / 2 + 0.5);
}
