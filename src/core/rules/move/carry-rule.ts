import { shiftFormula } from '../../formula/syntax/rewrite-references';
import { cellAddress, parseAddress } from '../../sheet/address';
import { mapRuleReferences } from '../shape/map-rule-references';
import type { Rule } from '../shape/rule';
import type { Reads } from '../terms';

/**
 * A rule as it reads over other cells, a number of columns to the right and rows down: relative references of its
 * formulas move along, `$` ones and thresholds read from a cell stay, as do the fields that it compares with and those
 * that it paints by name.
 */
export function carryRule(rule: Rule, reads: Reads, by: { readonly columns: number; readonly rows: number }): Rule {
  const moved = mapRuleReferences(rule, { formula: (text) => shiftFormula(text, by.columns, by.rows) });
  const at = moved.when.kind === 'formula' && moved.when.at !== undefined ? parseAddress(moved.when.at) : undefined;
  const when =
    at && moved.when.kind === 'formula'
      ? { ...moved.when, at: cellAddress(Math.max(0, at.column + by.columns), Math.max(0, at.position + by.rows)) }
      : moved.when;
  return { ...moved, reads, when };
}
