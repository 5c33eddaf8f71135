import type { Edit } from '../../core/edit/registry';
import type { Area, WrappedText } from '../../protocol/sheet-view';
import { heightOf } from '../grid/painter/height-of';

/**
 * The edits that give rows the height of their wrapped texts, one for each run of rows of one height. Where texts are
 * no longer wrapped, rows without any get the usual height again.
 */
export function heightEdits({ top, bottom }: Area, texts: readonly WrappedText[], on: boolean): Edit[] {
  const heights = new Map<number, number | null>();
  if (!on) for (let position = top; position <= bottom; position++) heights.set(position, null);
  for (const text of texts) {
    const heightPx = heightOf(text);
    if (heightPx !== null) heights.set(text.position, Math.max(heightPx, heights.get(text.position) ?? 0));
  }
  const edits: { do: 'set-height'; top: number; bottom: number; heightPx: number | null }[] = [];
  for (const [position, heightPx] of heights) {
    const last = edits.at(-1);
    if (last?.bottom === position - 1 && last.heightPx === heightPx) last.bottom = position;
    else edits.push({ do: 'set-height', top: position, bottom: position, heightPx });
  }
  return edits;
}
