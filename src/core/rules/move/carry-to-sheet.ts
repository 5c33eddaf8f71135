import { isKept, type CellRef } from '../../formula/syntax/formula-tree';
import { referenceText } from '../../formula/syntax/print-formula';
import { rewriteReferences } from '../../formula/syntax/rewrite-references';
import { lookOfPart, lookParts, OWN_LOOK } from '../../sheet/sheet-looks';
import { cellAddress, columnLetters } from '../../sheet/address';
import { labelIndex } from '../../sheet/label-index';
import type { Sheet } from '../../sheet/sheet';
import type { LookPart } from '../../sheet/sheet-part';
import { writtenFor } from './follow-layout';
import { mapRuleReferences } from '../shape/map-rule-references';
import type { Rule } from '../shape/rule';
import { savedLooksOf } from '../shape/rule-schema';

/** A rule converted for another sheet with the looks it needs there, or the labels of fields that are missing there. */
export type CarriedRule =
  | { readonly rule: Rule; readonly looks: readonly LookPart[] }
  | { readonly missing: readonly string[] };

/**
 * A rule of one sheet as it reads on another: fields are matched by label, and so are the columns in its formulas,
 * whose relative rows move along with the first record. A rule over certain cells, thresholds read from a cell, and
 * rows behind a `$` keep their addresses.
 */
export function carryToSheet(rule: Rule, { from, to }: { readonly from: Sheet; readonly to: Sheet }): CarriedRule {
  const find = labelIndex(to);
  const missing = new Set<string>();
  const columnOf = (column: number): number => {
    const label = from.labelOf(column) ?? columnLetters(column);
    const found = to.findColumn(find(label) ?? '');
    if (found === undefined) missing.add(label);
    return found ?? column;
  };
  const field = (id: string): string => {
    const column = from.findColumn(id);
    return column === undefined ? id : (to.fields[columnOf(column)]?.id ?? id);
  };
  const before = writtenFor(rule, from);
  const first = to.recordSpan().first;
  const move = ({ column, row }: CellRef): CellRef => ({
    column: column && { ...column, at: columnOf(column.at) },
    row: row && !row.absolute ? { ...row, at: Math.max(0, row.at + first - before.position) } : row,
  });
  const formula = (text: string): string =>
    rewriteReferences(text, (node) =>
      referenceText(
        node.sheet === null ? { ...node, ends: node.ends.map((end) => (isKept(end) ? end : move(end))) } : node,
      ),
    );
  const carried = mapRuleReferences(rule, { field, ...('fields' in rule.reads ? { formula } : {}) });
  const { when } = carried;
  const placed =
    when.kind === 'formula' && 'fields' in rule.reads
      ? { ...carried, when: { ...when, at: cellAddress(columnOf(before.column), first) } }
      : carried;
  if (missing.size) return { missing: [...missing] };
  // Looks of the first family stay as they are there, whatever they were made here.
  const used = savedLooksOf(rule).filter((look) => look.startsWith(OWN_LOOK));
  const looks = lookParts(from.parts.values()).filter(
    ({ id }) => used.includes(lookOfPart(id) ?? '') && !to.parts.has(id),
  );
  return { rule: placed, looks };
}
