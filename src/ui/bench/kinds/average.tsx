import { AVERAGE_SIDES, type AverageWhen } from '../../../core/rules/kinds/average';
import { Pick } from '../Pick';
import { ThresholdInput } from '../ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const averageBench: BenchKind<AverageWhen> = {
  title: 'Compare with the average',
  says: 'above or below the average of all, or of the same group, by so many deviations',
  Condition: AverageCondition,
};

function AverageCondition({ when, field, fields, onChange }: ConditionProps<AverageWhen>) {
  const group = typeof when.per === 'object' ? when.per.group : undefined;
  const groupLabel = fields.find((candidate) => candidate.id === group)?.label;
  const whose =
    group === undefined
      ? when.per === 'field'
        ? 'the average of its own field'
        : 'the average of all'
      : `the average of its ${groupLabel ?? 'removed field'}`;
  const options = [
    { id: 'all', words: 'the average of all' },
    { id: 'field', words: 'the average of its own field' },
    ...fields
      .filter((candidate) => candidate.id !== field?.id)
      .map((candidate) => ({ id: `group ${candidate.id}`, words: `the average of its ${candidate.label}` })),
  ];
  const pickWhose = (id: string) => onChange({ ...when, per: id === 'all' || id === 'field' ? id : { group: id.slice('group '.length) } });
  return (
    <>
      <Pick
        label="Side"
        value={when.is}
        shown={AVERAGE_SIDES[when.is]}
        options={Object.entries(AVERAGE_SIDES).map(([id, words]) => ({ id, words }))}
        onPick={(id) => onChange({ ...when, is: id as AverageWhen['is'] })}
      />{' '}
      <Pick
        label="Average"
        value={group === undefined ? ((when.per as string | undefined) ?? 'all') : `group ${group}`}
        shown={whose}
        options={options}
        onPick={pickWhose}
      />{' '}
      by{' '}
      <ThresholdInput
        label="Deviations"
        value={when.deviations ?? 0}
        format={null}
        unit={null}
        takes="number"
        onChange={(deviations) => Number(deviations) >= 0 && onChange({ ...when, deviations: Number(deviations) })}
      />{' '}
      <Pick
        label="Deviation"
        value={when.spread ?? 'sample'}
        shown={`${when.spread ?? 'sample'} deviations`}
        options={[
          { id: 'sample', words: 'sample deviations (n − 1)' },
          { id: 'population', words: 'population deviations (n)' },
        ]}
        onPick={(id) => onChange({ ...when, spread: id as 'sample' | 'population' })}
      />
    </>
  );
}
