import type { Evaluation } from '../evaluate/evaluation';
import { RunningRule } from '../evaluate/running-rule';
import type { RuleIdea } from '../shape/rule-idea';

/** How many cells a rule reads, and how many of them have a look by it. */
export interface MatchCount {
  readonly read: number;
  readonly matched: number;
}

/** What an idea would do on a sheet, beside the rules that are there; null where it cannot work there. */
export function countMatches({ world }: Evaluation, idea: RuleIdea): MatchCount | null {
  const running = new RunningRule({ ...idea, id: '', name: '', on: true }, world);
  return running.problem ? null : { read: running.readCount(), matched: running.shownCount() };
}
