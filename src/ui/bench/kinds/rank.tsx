import type { RankWhen } from '../../../core/rules/kinds/rank';
import { PickPer } from '../parts/PickPer';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const rankBench: BenchKind<RankWhen> = {
  title: 'Find the greatest or least',
  says: 'the top 10, the bottom 5 %, of all or of each group',
  needs: ['numbers'],
  Condition: RankCondition,
};

function RankCondition({ when, field, fields, onChange }: ConditionProps<RankWhen>) {
  const { n, percent, ...rest } = when;
  const unit = n === undefined ? 'percent' : 'number';
  const put = (count: number, as: 'percent' | 'number') =>
    onChange(as === 'percent' ? { ...rest, percent: Math.min(100, Math.max(0, count)) } : { ...rest, n: Math.max(1, Math.round(count)) });
  return (
    <>
      is among the <PickWord label="End" value={when.is} words={{ top: 'greatest', bottom: 'least' }} onPick={(is) => onChange({ ...when, is })} />{' '}
      <ThresholdInput
        label="How many"
        value={n ?? percent ?? 10}
        format={null}
        unit={null}
        takes="number"
        onChange={(count) => put(Number(count), unit)}
      />{' '}
      <PickWord
        label="Counted as"
        value={unit}
        words={{ number: 'values', percent: '% of the values' }}
        onPick={(as) => put(n ?? percent ?? 10, as)}
      />{' '}
      of <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} />
    </>
  );
}
