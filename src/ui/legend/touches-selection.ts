import type { Rule } from '../../core/rules/rule';
import { parseRanges } from '../../core/sheet/address';
import type { Selection, SheetFrame } from '../../protocol/engine-messages';
import { selectedAreas } from '../grid/engine/selection';

/** Whether a rule reads or paints a field or cell of the selection. */
export function touchesSelection({ reads, paints }: Rule, selection: Selection, frame: SheetFrame | null): boolean {
  const areas = selectedAreas(selection);
  const columnOf = (id: string) => frame?.fields.findIndex((field) => field.id === id) ?? -1;
  const isIn = (id: string): boolean => areas.some(({ left, right }) => columnOf(id) >= left && columnOf(id) <= right);
  if (typeof paints === 'object' && paints.fields.some(isIn)) return true;
  if ('fields' in reads) return paints === 'record' || reads.fields.some(isIn);
  const ranges = parseRanges(reads.cells) ?? [];
  return ranges.some((range) =>
    areas.some(
      ({ left, right, top, bottom }) =>
        top <= range.bottom && bottom >= range.top && (paints === 'record' || (left <= range.right && right >= range.left)),
    ),
  );
}
