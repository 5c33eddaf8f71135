import { decidingOutcome, sourcesOf } from './resolver';
import type { RunningRule } from './running-rule';

/**
 * True where a rule gives a cell a look: the outcome that decides over it has one. Counts, filters, find and the
 * spotlight all go by this; the trace says whether an earlier rule wins over its properties.
 */
export function showsAt(running: RunningRule, column: number, slot: number): boolean {
  const sources = running.painted.has(column) ? sourcesOf(running, column) : [column];
  const { outcome } = decidingOutcome(running, sources, slot);
  return outcome >= 0 && (running.variesByCell || running.look(outcome) !== null);
}
