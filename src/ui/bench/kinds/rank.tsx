import { useTranslations } from 'use-intl';
import type { RankWhen } from '../../../core/rules/kinds/rank';
import { selectCell } from '../../grid/engine/selection';
import { useSession, useSessionState } from '../../sheet/use-session';
import shared from '../Bench.module.css';
import classes from './rank.module.css';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';
import { PickPer } from '../parts/PickPer';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const rankBench: BenchKind<RankWhen> = {
  title: 'topOrBottomValues',
  says: 'top10Bottom5',
  needs: ['numbers'],
  Condition: RankCondition,
  Outcomes: RankTail,
};

/** The records at the edge: the last that are taken, and the first that are not. */
function RankTail({ when }: ConditionProps<RankWhen>) {
  const t = useTranslations('bench');
  const session = useSession();
  const rule = useSessionState((state) => state.bench?.draft.id) ?? '';
  const tail = useEngineQuery({ kind: 'ask-tail', rule, order: when.is === 'top' ? 'falling' : 'rising' }) ?? [];
  // Of several groups each has an edge of its own.
  if (typeof when.per === 'object' || when.per === 'field' || !tail.some(({ isIn }) => isIn)) return null;
  return (
    <ol className={classes.tail} aria-label={t('atTheEdge')}>
      {tail.map(({ place, label, shown, column, position, isIn }) => (
        <li key={`${column} ${position}`} data-in={isIn}>
          <button type="button" onClick={() => session.show(selectCell({ column, position }))}>
            <span className={classes.place}>{place}</span>
            <span className={shared.word}>{label}</span>
            <span>{shown}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}

function RankCondition({ when, field, fields, onChange }: ConditionProps<RankWhen>) {
  const t = useTranslations('bench');
  const { n, percent, ...rest } = when;
  const unit = n === undefined ? 'percent' : 'number';
  const put = (count: number, as: 'percent' | 'number') =>
    onChange(
      as === 'percent'
        ? { ...rest, percent: Math.min(100, Math.max(0, count)) }
        : { ...rest, n: Math.max(1, Math.round(count)) },
    );
  return (
    <>
      {t('isAmongThe')}{' '}
      <PickWord
        label={t('end')}
        value={when.is}
        words={{ top: t('greatestWord'), bottom: t('leastWord') }}
        onPick={(is) => onChange({ ...when, is })}
      />{' '}
      <ThresholdInput
        label={t('howMany')}
        value={n ?? percent ?? 10}
        format={null}
        unit={null}
        takes="number"
        onChange={(count) => put(Number(count), unit)}
      />{' '}
      <PickWord
        label={t('countedAs')}
        value={unit}
        words={{ number: t('valuesWord'), percent: t('ofTheValues') }}
        onPick={(as) => put(n ?? percent ?? 10, as)}
      />{' '}
      {t('of')} <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} />
    </>
  );
}
