import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { ExportSource, RuleFate } from '../export-source';

interface Outcome<C> {
  readonly fate: RuleFate;
  /** The conditions that are written for the rule. */
  readonly written: readonly C[];
}

/** What becomes of a rule in a workbook. */
export type WrittenRule<C> = Outcome<C> & { readonly running: RunningRule };

/** What becomes of each rule in a workbook. A part of a sheet takes the looks of now along, and no conditions. */
export const writtenRules = <C>(
  { running, area }: ExportSource,
  write: (rule: RunningRule) => Outcome<C>,
): WrittenRule<C>[] => running.map((rule) => ({ running: rule, ...(area ? asFormatting(rule) : write(rule)) }));

const asFormatting = ({ rule: { name } }: RunningRule): Outcome<never> => ({
  fate: { name, as: 'formatting', note: 'a part of a sheet takes the looks of now along' },
  written: [],
});

/** The rules of which the formatting of now is written instead. */
export const paintedRules = (rules: readonly WrittenRule<unknown>[]): Set<RunningRule> =>
  new Set(rules.flatMap(({ running, fate }) => (fate.as === 'formatting' ? running : [])));
