import { AVERAGE_SIDES, type AverageWhen } from '../../../core/rules/kinds/average';
import { PickPer } from '../parts/PickPer';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const averageBench: BenchKind<AverageWhen> = {
  title: 'Above or below average',
  says: 'above or below the average, of all or of each group, by standard deviations',
  needs: ['numbers'],
  Condition: AverageCondition,
};

const SPREADS = { sample: 'sample deviations (n − 1)', population: 'population deviations (n)' } as const;

function AverageCondition({ when, field, fields, onChange }: ConditionProps<AverageWhen>) {
  return (
    <>
      <PickWord label="Side" value={when.is} words={AVERAGE_SIDES} onPick={(is) => onChange({ ...when, is })} /> the
      average of{' '}
      <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} /> by{' '}
      <ThresholdInput
        label="Deviations"
        value={when.deviations ?? 0}
        format={null}
        unit={null}
        takes="number"
        onChange={(deviations) => Number(deviations) >= 0 && onChange({ ...when, deviations: Number(deviations) })}
      />{' '}
      <PickWord
        label="Deviation"
        value={when.spread ?? 'sample'}
        words={SPREADS}
        onPick={(spread) => onChange({ ...when, spread })}
      />
    </>
  );
}
