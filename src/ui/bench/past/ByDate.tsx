import { useElementSize } from '@mantine/hooks';
import { max, sum } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { useTranslations } from 'use-intl';
import type { NamedField } from '../../../core/rules/shape/sentence-words';
import type { Rule } from '../../../core/rules/shape/rule';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import { useLooks } from '../../legend/use-looks';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';
import { useSessionState } from '../../sheet/use-session';
import { outcomeColors } from '../picture/outcome-colors';
import classes from './Past.module.css';
import { timeFrame } from './time-frame';
import { TimeAxis } from './TimeAxis';

interface Props {
  readonly rule: Rule;
  readonly field: NamedField;
}

/** How many records a rule paints, and how many there are, by a date of theirs. */
export function ByDate({ rule, field }: Props) {
  const t = useTranslations('past');
  const theme = useSessionState((state) => state.theme);
  const { saved: looks } = useLooks();
  const { ref, width, height } = useElementSize<HTMLDivElement>();
  const bins = useEngineQuery({ kind: 'ask-by-date', rule, field: field.id }) ?? [];
  const [first] = bins;
  const [painted, records] = [sum(bins, (bin) => bin.painted), sum(bins, (bin) => bin.records)];
  const [color = null] = outcomeColors(rule, { saved: looks, theme });
  const [from, to] = [first?.from ?? 0, bins.at(-1)?.to ?? 1];
  const { x, top, floor } = timeFrame([from, to], { width, height });
  const y = scaleLinear([0, max(bins, (bin) => bin.records) ?? 1], [floor, top]);
  return (
    <>
      <div ref={ref} className={classes.chart}>
        <svg width={width} height={height} role="img" aria-label={t('chartByDate', { painted, records })}>
          {bins.map((bin) => {
            const place = { x: x(bin.from) + 0.5, width: Math.max(1.5, x(bin.to) - x(bin.from) - 1) };
            return (
              <g key={bin.from}>
                <title>{t('binPainted', { ...bin, from: isoFromSerial(bin.from) })}</title>
                <rect className={classes.allBar} {...place} y={y(bin.records)} height={floor - y(bin.records)} />
                <rect
                  {...place}
                  y={y(bin.painted)}
                  height={floor - y(bin.painted)}
                  fill={color?.fill}
                  stroke={color?.line}
                  strokeWidth={0.75}
                />
              </g>
            );
          })}
          <TimeAxis span={[from, to]} x={x} width={width} floor={floor} />
        </svg>
      </div>
      <p className={classes.facts}>{t('paintedByDate', { painted, records, field: field.label })}</p>
    </>
  );
}
