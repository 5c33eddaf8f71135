import { itemAt } from '../../values/item-at';
import type { When } from '../../rules/kinds/registry';
import type { Operand } from '../../rules/terms';
import { operandOfFormula } from '../workbook/operand-of-formula';
import { unusableBecause } from '../workbook/unusable-formula';
import { fromOdfFormula } from './formula-text';

const COMPARE = /^cell-content\(\)\s*(<=|>=|!=|<|>|=)\s*([\s\S]+)$/;
const BETWEEN = /^cell-content-is-(not-)?between\(([\s\S]*)\)$/;
const FORMULA = /^is-true-formula\(([\s\S]*)\)$/;

/**
 * A condition of a style, ISO/IEC 26300-1, 19.469, as one of ours, or why it is not supported. `base` is the cell that
 * its formulas are written for.
 */
export function readCondition(
  text: string,
  base: string,
  sheet: string,
): { readonly when: When } | { readonly lost: string } {
  const condition = text.trim().replace(/^of:/, '');
  const compared = COMPARE.exec(condition);
  if (compared) {
    const to = operandOf(itemAt(compared, 2), sheet);
    return to === undefined ? LOST : { when: { kind: 'compare', is: compared[1] as '<', to } };
  }
  const between = BETWEEN.exec(condition);
  if (between) {
    const [low, high] = splitArguments(itemAt(between, 2)).map((side) => operandOf(side, sheet));
    if (low === undefined || high === undefined) return LOST;
    const is = between[1] ? 'outside' : 'between';
    return { when: { kind: 'compare', is, to: [low, high] } };
  }
  const formula = FORMULA.exec(condition);
  if (formula) {
    const read = fromOdfFormula(`=${formula[1]}`, sheet);
    if (read === undefined || unusableBecause(read) !== undefined) return LOST;
    return { when: { kind: 'formula', formula: read, at: base } };
  }
  return LOST;
}

const LOST = { lost: 'its condition cannot be read, or uses what is not there' } as const;

const operandOf = (text: string, sheet: string): Operand | undefined =>
  operandOfFormula(fromOdfFormula(`=${text}`, sheet));

/** Parts between commas that stand in no brackets and no text. */
function splitArguments(text: string): string[] {
  const parts = [''];
  let depth = 0;
  let isText = false;
  for (const sign of text) {
    if (sign === '"') isText = !isText;
    if (!isText && '([{'.includes(sign)) depth++;
    if (!isText && ')]}'.includes(sign)) depth--;
    if (sign === ',' && depth === 0 && !isText) parts.push('');
    else parts[parts.length - 1] += sign;
  }
  return parts;
}
