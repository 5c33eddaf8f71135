import { Slider } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
import type { Fill } from '../../../core/looks/look';
import { groundOf } from '../../../core/looks/readable-text';
import classes from '../Bench.module.css';
import { PickColor } from '../parts/PickColor';
import { PickWord } from '../parts/PickWord';

const FILLS = {
  none: 'none',
  plain: 'plain',
  clear: 'translucent',
  gradient: 'gradient',
  dots: 'dots',
  lines: 'lines',
  cross: 'crossedLines',
  diagonal: 'diagonalLines',
} as const;
type FillKind = keyof typeof FILLS;

interface Props {
  readonly fill: Fill | undefined;
  readonly onChange: (fill: Fill) => void;
}

/** The fill of a look: plain, letting the cell through, from one colour to another, or a pattern. */
export function FillEditor({ fill, onChange }: Props) {
  const t = useTranslations('bench');
  const kind = kindOf(fill);
  const color =
    fill === undefined ? '#fde5ac' : typeof fill === 'string' ? fill : 'color' in fill ? fill.color : fill.from;
  return (
    <div className={classes.lookLine}>
      <span>{t('fill')}</span>
      <PickWord
        label={t('fill')}
        value={kind}
        words={eachText(FILLS, (key) => t(key))}
        onPick={(next) => next !== 'none' && onChange(fillOf(next, color))}
      />
      {fill !== undefined && (
        <PickColor label={t('fillColour')} value={color} onPick={(next) => onChange(withColor(fill, next))} />
      )}
      {typeof fill === 'object' && 'to' in fill && (
        <>
          {t('to')}{' '}
          <PickColor label={t('secondFillColour')} value={fill.to} onPick={(to) => onChange({ ...fill, to })} />
        </>
      )}
      {typeof fill === 'object' && 'pattern' in fill && (
        <>
          {t('on')}{' '}
          <PickColor
            label={t('groundOfThePattern')}
            value={groundOf(fill)}
            onPick={(on) => onChange({ ...fill, on })}
          />
        </>
      )}
      {typeof fill === 'object' && 'opacity' in fill && (
        <Slider
          w={110}
          size="sm"
          color="ink"
          min={5}
          max={100}
          label={(percent) => `${percent} %`}
          thumbLabel={t('opacity')}
          value={Math.round(fill.opacity * 100)}
          onChange={(percent) => onChange({ ...fill, opacity: percent / 100 })}
        />
      )}
    </div>
  );
}

function kindOf(fill: Fill | undefined): FillKind {
  if (fill === undefined) return 'none';
  if (typeof fill === 'string') return 'plain';
  if ('opacity' in fill) return 'clear';
  return 'pattern' in fill ? fill.pattern : 'gradient';
}

function fillOf(kind: Exclude<FillKind, 'none'>, color: string): Fill {
  if (kind === 'plain') return color;
  if (kind === 'clear') return { color, opacity: 0.5 };
  return kind === 'gradient' ? { from: color, to: '#ffffff' } : { pattern: kind, color, on: '#ffffff' };
}

function withColor(fill: Fill, color: string): Fill {
  if (typeof fill === 'string') return color;
  return 'from' in fill ? { ...fill, from: color } : { ...fill, color };
}
