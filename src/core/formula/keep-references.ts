import type { Sheet } from '../sheet/sheet';
import { isKept, type CellRef, type KeptRef } from './formula-tree';
import { referenceText } from './print-formula';
import { rewriteReferences } from './rewrite-references';

/**
 * A formula as a sheet keeps it: its references by the ids of fields and rows instead of letters and numbers, so that they
 * follow what they refer to wherever it goes, for everybody at once and whatever else changes meanwhile. A cell of the formula's own row
 * is kept as just that, so that formulas which say the same in each row are the same text. What lies beyond the sheet stays as typed.
 */
export function keepReferences(input: string, sheet: Sheet, slot: number): string {
  if (!isFormulaInput(input)) return input;
  return rewriteReferences(input, (node) => {
    if (node.sheet !== null) return referenceText(node);
    return referenceText({ ...node, ends: node.ends.map((end) => (isKept(end) ? end : (keptEnd(end, sheet, slot) ?? end))) });
  });
}

/** The same formula as a person reads it: references by letters and numbers as they are now, `#REF!` where one is gone. */
export function showReferences(input: string, sheet: Sheet, slot: number): string {
  if (!isFormulaInput(input) || !input.includes('⟦')) return input;
  return rewriteReferences(input, (node) => {
    const ends = node.ends.map((end) => (isKept(end) ? plainEnd(end, sheet, slot) : end));
    return ends.every((end) => end !== undefined) ? referenceText({ ...node, ends }) : '#REF!';
  });
}

const isFormulaInput = (input: string): boolean => /^\p{White_Space}*=/u.test(input);

function keptEnd({ column, row }: CellRef, sheet: Sheet, slot: number): KeptRef | undefined {
  const field = column && sheet.fields[column.at];
  if (field === undefined) return undefined;
  const kept = field && { id: field.id, absolute: column!.absolute };
  if (!row) return { field: kept, row: 'all' };
  const at = sheet.order[row.at];
  if (at === undefined) return undefined;
  return { field: kept, row: at === slot && !row.absolute && field ? 'same' : { id: sheet.rowId(at), absolute: row.absolute } };
}

function plainEnd({ field, row }: KeptRef, sheet: Sheet, slot: number): CellRef | undefined {
  const column = field && sheet.findColumn(field.id);
  const at = row === 'same' ? slot : typeof row === 'object' ? sheet.findSlot(row.id) : null;
  if (column === undefined || at === undefined) return undefined;
  return {
    column: field && { at: column!, absolute: field.absolute },
    row: at === null ? null : { at: sheet.positionOf(at), absolute: typeof row === 'object' && row.absolute },
  };
}
