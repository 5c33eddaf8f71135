import type { Sheet } from '../sheet';

/** How many fields, from the left, stay in view; none where the last of them is gone. */
export function frozenColumns(sheet: Sheet): number {
  const part = sheet.parts.get('freeze');
  return part?.kind === 'freeze' ? (sheet.findColumn(part.through) ?? -1) + 1 : 0;
}
