import { useTranslations } from 'use-intl';
import { recordOf } from '../../../core/values/typed-keys';
import { UNIT_TEXTS } from './unit-texts';
import { eachText } from '../../../texts/texts';
import { CHANGE_UNITS, MOVES, type ChangeWhen } from '../../../core/rules/kinds/change';
import { AmountInput } from '../parts/AmountInput';
import { useSessionState } from '../../sheet/use-session';
import { Pick } from '../parts/Pick';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const changeBench: BenchKind<ChangeWhen> = {
  title: 'changedRecently',
  says: 'changedRoseOrFell',
  needs: 'anything',
  Condition: ChangeCondition,
};

const SIZES = { any: 'byWhatever', least: 'byLeast' } as const;

function withSize({ by: _, ...when }: ChangeWhen, by: ChangeWhen['by']): ChangeWhen {
  return by === undefined ? when : { ...when, by };
}

/** The condition over what changed since a named moment, or within a day where none is named. */
function comparedWith({ within: _, since: __, ...when }: ChangeWhen, name: string): ChangeWhen {
  return name === '' ? { ...when, within: { n: 1, unit: 'day' } } : { ...when, since: name };
}

function ChangeCondition({ when, onChange }: ConditionProps<ChangeWhen>) {
  const t = useTranslations('bench');
  const { within } = when;
  const snapshots = useSessionState((state) => state.frame?.snapshots) ?? [];
  return (
    <>
      <PickWord label={t('move')} value={when.is} words={MOVES} onPick={(is) => onChange({ ...when, is })} />{' '}
      <PickWord
        label={t('howMuch')}
        value={when.by === undefined ? 'any' : 'least'}
        words={eachText(SIZES, (key) => t(key))}
        onPick={(size) => onChange(withSize(when, size === 'any' ? undefined : '10%'))}
      />{' '}
      {when.by !== undefined && (
        <AmountInput label={t('leastChange')} value={when.by} onChange={(by) => onChange(withSize(when, by))} />
      )}{' '}
      <Pick
        label={t('comparedWith')}
        value={when.since ?? ''}
        shown={within ? t('within') : t('sinceName', { name: when.since ?? '' })}
        options={[
          { id: '', words: t('withinSomeTime') },
          ...snapshots.map((name) => ({ id: name, words: t('sinceName', { name }) })),
        ]}
        onPick={(name) => onChange(comparedWith(when, name))}
      />{' '}
      {within && (
        <>
          <ThresholdInput
            label={t('howMany')}
            value={within.n}
            format={null}
            unit={null}
            takes="number"
            onChange={(n) =>
              Number.isInteger(n) && Number(n) > 0 && onChange({ ...when, within: { ...within, n: Number(n) } })
            }
          />{' '}
          <PickWord
            label={t('unit')}
            value={within.unit}
            words={recordOf(CHANGE_UNITS, (unit) => t(UNIT_TEXTS[unit], { count: within.n }))}
            onPick={(unit) => onChange({ ...when, within: { ...within, unit } })}
          />
        </>
      )}
    </>
  );
}
