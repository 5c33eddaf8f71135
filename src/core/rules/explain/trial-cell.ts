import { FormulaError } from '../../formula/values/formula-value';
import { cellValueOf } from '../../formula/run/make-formula';
import { shownText } from '../../values/shown-text';
import type { RunningRule } from '../evaluate/running-rule';

/** The result of a rule's formula for one record, and its outcome. */
export interface TrialCell {
  readonly text: string;
  readonly verdict: 'meets' | 'does not meet' | 'fails';
}

/**
 * The column whose cells a trial column judges: the one asked for where the rule reads it, else the first that it
 * reads.
 */
export const trialColumn = ({ read }: RunningRule, asked: number): number | undefined =>
  (read.find(({ column }) => column === asked) ?? read[0])?.column;

/**
 * The preview column's entry for a cell; null for cells that the rule does not read, and for conditions that are no
 * formula.
 */
export function trialCell(running: RunningRule, column: number, slot: number): TrialCell | null {
  if (!running.read.some((member) => member.column === column && member.slots.has(slot))) return null;
  const value = running.formulaValue(column, slot);
  if (value === undefined) return null;
  const verdict =
    value instanceof FormulaError ? 'fails' : running.judge(column, slot) >= 0 ? 'meets' : 'does not meet';
  return { text: shownText(cellValueOf(value), null) || 'blank', verdict };
}
