import { ActionIcon } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { itemAt, lastItem } from '../../../core/values/item-at';
import { SCHEMES, type SchemeName } from '../../../core/looks/schemes';
import { ColorRamp } from '../../../core/looks/color-ramp';
import type { ScaleWhen } from '../../../core/rules/kinds/scale';
import classes from '../Bench.module.css';
import { Pick } from '../parts/Pick';
import { PickColor } from '../parts/PickColor';
import { PickPer } from '../parts/PickPer';
import { PickPosition } from '../parts/PickPosition';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const scaleBench: BenchKind<ScaleWhen> = {
  title: 'colourScale',
  says: 'coloursFromLowHigh',
  needs: ['numbers'],
  Condition: ScaleCondition,
  Outcomes: ScaleOutcomes,
};

function ScaleCondition({ when, field, fields, onChange }: ConditionProps<ScaleWhen>) {
  const t = useTranslations('bench');
  const names = keysOf(SCHEMES);
  const shown = names.find((name) => sameColors(when, name));
  /** The stops keep their places; their colours are read off the scheme at equal steps. */
  const take = (name: SchemeName) => {
    const ramp = new ColorRamp(SCHEMES[name].colors, 'oklab');
    onChange({
      ...when,
      stops: when.stops.map((stop, at) => ({
        ...stop,
        color: ramp.at(at / (when.stops.length - 1), evenly(SCHEMES[name].colors.length)),
      })),
    });
  };
  return (
    <>
      {t('isANumberShaded')}{' '}
      <Pick
        label={t('colours')}
        value={shown ?? ''}
        shown={shown ? SCHEMES[shown].words : t('inItsOwnColours')}
        options={names.map((name) => ({ id: name, words: <SchemeWords name={name} /> }))}
        onPick={(name) => take(name)}
      />{' '}
      {t('among')}{' '}
      <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} />
      {t('mixed')}{' '}
      <PickWord
        label={t('mixed2')}
        value={when.space ?? 'oklab'}
        words={{ oklab: t('evenlyForTheEye'), lab: t('inCIELAB'), rgb: t('inPlainRGB') }}
        onPick={(space) => onChange({ ...when, space })}
      />
    </>
  );
}

/** Positions from 0 to 1 at equal steps. */
const evenly = (count: number): number[] => Array.from({ length: count }, (_, at) => at / (count - 1));

const sameColors = (when: ScaleWhen, name: SchemeName): boolean => {
  const { colors } = SCHEMES[name];
  const ends = [itemAt(when.stops, 0).color, lastItem(when.stops).color];
  return ends[0] === colors[0] && ends[1] === colors.at(-1);
};

function SchemeWords({ name }: { readonly name: SchemeName }) {
  return (
    <span className={classes.palette}>
      <span
        className={classes.ramp}
        style={{ background: `linear-gradient(90deg, ${SCHEMES[name].colors.join(', ')})` }}
      />
      {SCHEMES[name].words}
    </span>
  );
}

function ScaleOutcomes({ when, field, onChange }: ConditionProps<ScaleWhen>) {
  const t = useTranslations('bench');
  const { stops } = when;
  const put = (at: number, stop: Partial<ScaleWhen['stops'][number]>) =>
    onChange({ ...when, stops: stops.with(at, { ...itemAt(stops, at), ...stop }) });
  const add = () => {
    const ramp = new ColorRamp(
      stops.map(({ color }) => color),
      when.space ?? 'oklab',
    );
    const at = stops.length - 1;
    onChange({
      ...when,
      stops: stops.toSpliced(at, 0, { at: { percentile: 50 }, color: ramp.at((at - 0.5) / at, evenly(stops.length)) }),
    });
  };
  return (
    <ol className={classes.bands} aria-label={t('stops')}>
      {stops.map((stop, at) => (
        <li key={at} className={classes.band}>
          <PickColor
            label={t('colourOfStopAt', { at: at + 1 })}
            value={stop.color}
            onPick={(color) => put(at, { color })}
          />
          <span>
            {t('at')}{' '}
            <PickPosition
              label={t('stopAt', { at: at + 1 })}
              position={stop.at}
              field={field}
              onChange={(next) => put(at, { at: next })}
            />
          </span>
          {stops.length > 2 && (
            <ActionIcon
              variant="subtle"
              color="ink"
              size="sm"
              aria-label={t('removeStopAt', { at: at + 1 })}
              onClick={() => onChange({ ...when, stops: stops.toSpliced(at, 1) })}
            >
              <IconX size={13} stroke={1.5} />
            </ActionIcon>
          )}
        </li>
      ))}
      <li className={classes.band}>
        <ActionIcon variant="default" size="sm" aria-label={t('addAStop')} onClick={add}>
          <IconPlus size={13} stroke={1.5} />
        </ActionIcon>
      </li>
    </ol>
  );
}
