import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
import { AVERAGE_SIDES, type AverageWhen } from '../../../core/rules/kinds/average';
import { PickPer } from '../parts/PickPer';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const averageBench: BenchKind<AverageWhen> = {
  title: 'aboveOrBelowAverage',
  says: 'aboveOrBelowAverageAll',
  needs: ['numbers'],
  Condition: AverageCondition,
};

const SPREADS = { sample: 'sampleDeviationsN1', population: 'populationDeviationsN' } as const;

function AverageCondition({ when, field, fields, onChange }: ConditionProps<AverageWhen>) {
  const t = useTranslations('bench');
  return (
    <>
      <PickWord label={t('side')} value={when.is} words={AVERAGE_SIDES} onPick={(is) => onChange({ ...when, is })} />{' '}
      {t('theAverageOf')}{' '}
      <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} /> {t('by')}{' '}
      <ThresholdInput
        label={t('deviations')}
        value={when.deviations ?? 0}
        format={null}
        unit={null}
        takes="number"
        onChange={(deviations) => Number(deviations) >= 0 && onChange({ ...when, deviations: Number(deviations) })}
      />{' '}
      <PickWord
        label={t('deviation')}
        value={when.spread ?? 'sample'}
        words={eachText(SPREADS, (key) => t(key))}
        onPick={(spread) => onChange({ ...when, spread })}
      />
    </>
  );
}
