import type { Sheet } from '../../core/sheet/sheet';
import { shownAt } from '../../core/sheet/shown-cell';
import type { Area, WrappedText } from '../../protocol/sheet-view';

/** Cells that are looked at: rows below them keep their height. */
const MAX_CELLS = 20_000;

/** The texts in the rows of an area that are shown on several lines, once its own cells are wrapped, or no longer. */
export function wrappedTexts(sheet: Sheet, { left, top, right, bottom }: Area, on: boolean): WrappedText[] {
  const found: WrappedText[] = [];
  const last = Math.min(bottom, sheet.rowCount - 1, top + Math.floor(MAX_CELLS / sheet.fields.length));
  for (let position = top; position <= last; position++) {
    const slot = sheet.slotAt(position);
    for (const [column, { widthPx }] of sheet.fields.entries()) {
      const style = sheet.styleAt(column, slot);
      const isWrapped = column >= left && column <= right ? on : style?.wrap === true;
      const text = isWrapped ? shownAt(sheet, column, slot) : '';
      if (text === '') continue;
      const isBold = style?.bold ?? ['header', 'total'].includes(sheet.roleAt(slot));
      found.push({ position, text, widthPx, sizePx: style?.sizePx ?? 13, isBold });
    }
  }
  return found;
}
