import { useTranslations } from 'use-intl';
import { BAR_COLORS, type BarWhen } from '../../../core/rules/kinds/bar';
import { PickColor } from '../parts/PickColor';
import { PickPer } from '../parts/PickPer';
import { PickPosition } from '../parts/PickPosition';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const barBench: BenchKind<BarWhen> = {
  title: 'dataBars',
  says: 'barAsLongAs',
  needs: ['numbers'],
  Condition: BarCondition,
};

function BarCondition({ when, field, fields, onChange }: ConditionProps<BarWhen>) {
  const t = useTranslations('bench');
  const { from = 'auto', to = 'auto' } = when;
  const put = (part: Partial<BarWhen>) => onChange({ ...when, ...part });
  return (
    <>
      {t('numberDrawnAs')}{' '}
      <PickWord
        label={t('style')}
        value={when.style ?? 'solid'}
        words={{ solid: t('plainBar'), gradient: t('fadingBar') }}
        onPick={(style) => put({ style })}
      />{' '}
      <PickColor label={t('colour')} value={when.color ?? BAR_COLORS.above} onPick={(color) => put({ color })} /> (
      <PickColor
        label={t('colourBelowZero')}
        value={when.below ?? BAR_COLORS.below}
        onPick={(below) => put({ below })}
      />{' '}
      {t('belowZeroFrom')}{' '}
      <PickPosition
        label={t('beginning')}
        position={from === 'auto' ? 0 : from}
        field={field}
        auto={{ isChosen: from === 'auto', onPick: () => put({ from: 'auto' }) }}
        onChange={(next) => put({ from: next })}
      />{' '}
      {t('to')}{' '}
      <PickPosition
        label={t('end')}
        position={to === 'auto' ? 0 : to}
        field={field}
        auto={{ isChosen: to === 'auto', onPick: () => put({ to: 'auto' }) }}
        onChange={(next) => put({ to: next })}
      />{' '}
      {t('among')} <PickPer value={when.per} fields={fields} except={field} onPick={(per) => put({ per })} />
      {t('growingFromThe')}{' '}
      <PickWord
        label={t('side')}
        value={when.side ?? 'start'}
        words={{ start: t('leftWord'), end: t('rightWord') }}
        onPick={(side) => put({ side })}
      />{' '}
      {t('with')}{' '}
      <PickWord
        label={t('axis')}
        value={when.axis ?? 'zero'}
        words={{ zero: t('itsAxisAtZero'), middle: t('itsAxisMiddle'), none: t('noAxis') }}
        onPick={(axis) => put({ axis })}
      />{' '}
      {t('and')}{' '}
      <PickWord
        label={t('value2')}
        value={when.showValue === false ? 'hidden' : 'shown'}
        words={{ shown: t('theValueOnIt'), hidden: t('noValue') }}
        onPick={(value) => put({ showValue: value === 'shown' })}
      />
    </>
  );
}
