import type { Evaluation } from '../evaluate/evaluation';
import { recordName } from './record-name';
import type { RunningRule } from '../evaluate/running-rule';

/** Records listed at most. */
const MAX_RECORDS = 200;

/** How many cells of a field, or of a record, have each outcome of a rule. */
export interface Tally {
  readonly label: string;
  /** By the number of the outcome. */
  readonly outcomes: readonly number[];
}

export interface OutcomeTallies {
  readonly fields: readonly Tally[];
  /** Named by the first text beside what is read; records without any outcome are left out. */
  readonly records: readonly Tally[];
}

/**
 * The outcomes of a rule by field and by record; nothing where there is no such rule. Cost: a look at each cell read.
 */
export function outcomeTallies({ sheet, activeRules }: Evaluation, id: string): OutcomeTallies {
  const found = activeRules.find(({ rule }) => rule.id === id);
  if (!found) return { fields: [], records: [] };
  const fields = found.read.map(({ column, slots }) => {
    const outcomes: number[] = [];
    slots.forEach((slot) => count(outcomes, found.outcomeAt(column, slot)));
    return { label: sheet.labelOf(column) ?? `column ${column + 1}`, outcomes: filled(outcomes) };
  });
  return { fields, records: recordTallies(found, sheet) };
}

function recordTallies(running: RunningRule, sheet: Evaluation['sheet']): Tally[] {
  const columns = new Set(running.read.map(({ column }) => column));
  const tallies: Tally[] = [];
  for (const slot of sheet.order) {
    const outcomes: number[] = [];
    for (const { column } of running.read) count(outcomes, running.outcomeAt(column, slot));
    if (outcomes.length === 0) continue;
    tallies.push({ label: recordName(sheet, slot, columns), outcomes: filled(outcomes) });
    if (tallies.length === MAX_RECORDS) break;
  }
  return tallies;
}

function count(outcomes: number[], outcome: number): void {
  if (outcome >= 0) outcomes[outcome] = (outcomes[outcome] ?? 0) + 1;
}

const filled = (outcomes: readonly number[]): number[] => Array.from(outcomes, (counted) => counted ?? 0);
