import type { RuleProfile } from '../../core/rules/explain/profile-rule';
import type { LinkedProfile } from '../../protocol/linked-table';

/** What the bench says of the values of a table, as it says it of those of a sheet. */
export function profileOfTable(told: LinkedProfile): RuleProfile {
  const { percentiles, texts, dates, today, nearest } = told;
  const at = (percent: number): number => percentiles[percent] ?? NaN;
  return {
    isOfAll: true,
    texts,
    dates,
    today,
    nearest: nearest.map(({ below, at: equal, above }) => ({ below: below ?? NaN, at: equal, above: above ?? NaN })),
    profile: {
      numbers: told.numbers,
      blanks: told.blanks,
      others: told.others,
      bins: told.bins,
      percentiles,
      least: told.least ?? NaN,
      lowerQuartile: at(25),
      median: at(50),
      upperQuartile: at(75),
      greatest: told.greatest ?? NaN,
      mean: told.mean ?? NaN,
      deviation: told.deviation ?? NaN,
      commonText: texts[0]?.text ?? null,
    },
  };
}

/** What a profile says whatever the condition is. */
export const withoutCondition = ({ profile, texts, ...rest }: RuleProfile): RuleProfile => ({
  ...rest,
  nearest: [],
  texts: texts.map((text) => ({ ...text, outcome: -1 })),
  profile: { ...profile, bins: profile.bins.map((bin) => ({ ...bin, outcomes: [] })) },
});
