import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { ExportSource, RuleFate } from '../export-source';

interface Said<W> {
  readonly fate: RuleFate;
  /** What is written of the rule. */
  readonly written: readonly W[];
}

/** What becomes of each rule in a workbook. A part of a sheet takes the looks of now along, and no conditions. */
export const saidRules = <W>(
  { running, area }: ExportSource,
  say: (rule: RunningRule) => Said<W>,
): (Said<W> & { readonly running: RunningRule })[] =>
  running.map((rule) => ({ running: rule, ...(area ? partly(rule) : say(rule)) }));

const partly = ({ rule: { name } }: RunningRule): Said<never> => ({
  fate: { name, as: 'formatting', note: 'a part of a sheet takes the looks of now along' },
  written: [],
});

/** The rules of which the formatting of now is written instead. */
export const paintedRules = (said: readonly (Said<unknown> & { readonly running: RunningRule })[]): Set<RunningRule> =>
  new Set(said.flatMap(({ running, fate }) => (fate.as === 'formatting' ? running : [])));
