import { useElementSize } from '@mantine/hooks';
import { max, tickStep } from 'd3-array';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { useFormatter, useTranslations } from 'use-intl';
import type { Texts } from '../../../texts/texts';
import { itemAt, lastItem } from '../../../core/values/item-at';
import { kindOf, type When } from '../../../core/rules/kinds/registry';
import type { RuleProfile } from '../../../core/rules/explain/profile-rule';
import type { Rule } from '../../../core/rules/shape/rule';
import { thresholdText } from '../../../core/values/threshold-text';
import type { Bin, ValueProfile } from '../../../core/stats/profile-values';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import { formatNumber } from '../../../core/values/number-format';
import { useSession, useSessionState } from '../../sheet/use-session';
import { useSame } from '../../use-same';
import { useNewest } from '../../use-newest';
import { useLooks } from '../../legend/use-looks';
import shared from '../Bench.module.css';
import classes from './Distribution.module.css';
import { dateTicks } from './date-ticks';
import { Handle } from './Handle';
import { HistogramBar } from './HistogramBar';
import { MarkLine } from './MarkLine';
import { outcomeColors, type OutcomeColors } from './outcome-colors';
import { placeOnScale } from './place-on-scale';

const MARGIN = { top: 22, bottom: 23, side: 10 };

/**
 * The real values that a rule judges, as a histogram, with its thresholds as handles to drag or to step with the arrow
 * keys.
 */
export function Distribution({ rule, answer }: { readonly rule: Rule; readonly answer: RuleProfile }) {
  const t = useTranslations('bench');
  const session = useSession();
  const theme = useSessionState((state) => state.theme);
  const { saved } = useLooks();
  const { profile, dates, today } = useDeferredValue(answer);
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const { ref, width, height } = useElementSize<HTMLDivElement>();

  const { reads, when } = rule;
  const field = 'fields' in reads ? fields.find((candidate) => candidate.id === reads.fields[0]) : undefined;
  const format = field?.format ?? null;
  const isDated = dates > profile.numbers / 2;
  const shown = (value: number): string => (isDated ? isoFromSerial(value) : thresholdText(value, format));
  const handles = handlesOf(when, profile);
  // The first thresholds of the rule have their place in the picture too; while one is dragged the scale stands still.
  const [begun] = useState(() => handles.map(({ value }) => value));
  const edges = useSame([itemAt(profile.bins, 0).from, lastItem(profile.bins).to, most(profile.bins)] as const);
  const scales = useMemo(() => scalesOf(edges, begun, { width, height }), [edges, begun, width, height]);
  const { x, from, to, floor } = scales;
  // Fine enough that any threshold worth having can be reached, coarse enough to land on round numbers.
  const step = isDated ? 1 : tickStep(from, to, 160);
  const marks = isDated ? [{ value: today, says: t('today') }] : (kindOf(when).marks?.(when, profile) ?? []);
  const looks = useSame(outcomeColors(rule, { saved, theme }));
  const change = (next: (value: number) => When, value: number) =>
    session.rules.dragDraft({ ...rule, when: next(Number((Math.round(value / step) * step).toPrecision(12))) });

  return (
    <div ref={ref} className={shared.chart}>
      <svg
        width={width}
        height={height}
        role="group"
        aria-label={t('howValuesLabelSpread', { label: field?.label ?? t('theseCells') })}
      >
        <Bars
          bins={profile.bins}
          scales={scales}
          looks={looks}
          shades={shadesOf(when, profile)}
          isDated={isDated}
          format={format}
        />
        <Axis scales={scales} width={width} says={isDated ? null : (value) => thresholdText(value, format)} />
        {marks
          .filter(({ value }) => value >= from && value <= to)
          .map(({ value, says }, at) => (
            <MarkLine key={says} x={x(value)} width={width} top={MARGIN.top} floor={floor} line={at} says={says} />
          ))}
        {handles.map((handle, at) => (
          <Handle
            key={at}
            label={handles.length > 1 ? t('thresholdAt', { at: at + 1 }) : t('threshold')}
            value={handle.value}
            shown={shown(handle.value)}
            room={width}
            x={Math.max(0, Math.min(width, x(handle.value)))}
            top={MARGIN.top - 4 + (at % 2) * 3}
            bottom={floor}
            range={[from, to]}
            step={step}
            valueAt={(px) => x.invert(px)}
            onChange={(value) => change(handle.with, value)}
          />
        ))}
      </svg>
    </div>
  );
}

interface Scales {
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleLinear<number, number>;
  readonly from: number;
  readonly to: number;
  /** Where the bars stand, in pixels from the top. */
  readonly floor: number;
}

/** How many values are in the fullest bin. */
const most = (bins: readonly Bin[]): number => max(bins, (bin) => bin.count) ?? 1;

/**
 * The scales of a picture of a size in pixels, with room for the places where its handles began: from the least value to
 * the greatest, and as high as the fullest bin.
 */
function scalesOf(
  [first, last, highest]: readonly [number, number, number],
  begun: readonly number[],
  { width, height }: { readonly width: number; readonly height: number },
): Scales {
  const [least, greatest] = edgesWith(begun, [first, last]);
  const [from, to] = least === greatest ? [least - 1, greatest + 1] : [least, greatest];
  const floor = Math.max(height - MARGIN.bottom, MARGIN.top + 10);
  return {
    x: scaleLinear([from, to], [MARGIN.side, Math.max(width - MARGIN.side, MARGIN.side + 1)]),
    y: scaleLinear([0, highest], [floor, MARGIN.top + 4]),
    from,
    to,
    floor,
  };
}

interface AxisProps {
  readonly scales: Scales;
  readonly width: number;
  /** A number in words; null where the values are dates. */
  readonly says: ((value: number) => string) | null;
}

/** The line under the bars, with numbers or dates beneath it. */
function Axis({ scales: { x, from, to, floor }, width, says: sayNumber }: AxisProps) {
  const { dateTime } = useFormatter();
  const count = Math.max(2, Math.floor(width / 70));
  const ticks = sayNumber
    ? x.ticks(count).map((value) => ({ value, says: sayNumber(value) }))
    : dateTicks([from, to], Math.ceil(count / 1.5), (date, parts) => dateTime(date, parts));
  return (
    <>
      <line className={classes.baseline} x1={MARGIN.side} x2={width - MARGIN.side} y1={floor + 0.5} y2={floor + 0.5} />
      {ticks.map(({ value, says }) => (
        <text key={value} className={classes.axis} x={x(value)} y={floor + 19} textAnchor="middle">
          {says}
        </text>
      ))}
    </>
  );
}

interface BarsProps {
  readonly bins: readonly Bin[];
  readonly scales: Scales;
  readonly looks: readonly (OutcomeColors | null)[];
  /** The colour of a value, for conditions that shade them. */
  readonly shades: ((value: number) => string) | undefined;
  readonly isDated: boolean;
  /** Of the numbers. */
  readonly format: string | null;
}

function Bars({ bins, scales: { x, y }, looks, shades, isDated, format }: BarsProps) {
  const t = useTranslations('bench');
  const session = useSession();
  const says = useCallback(
    (bin: Bin) => {
      const [from, to] = [formatNumber(bin.from, format), formatNumber(bin.to, format)];
      return t('rangeCountCells', { range: isDated ? daysOf(bin, t) : t('from', { from, to }), count: bin.count });
    },
    [t, isDated, format],
  );
  const onPoint = useNewest((bin: Bin | null) =>
    session.rules.spotlightPart(bin && { from: bin.from, to: bin.to, takesEnd: bin === bins.at(-1) }),
  );
  return bins.map((bin) => {
    const shade = shades?.((bin.from + bin.to) / 2);
    return (
      <HistogramBar
        key={bin.from}
        bin={bin}
        looks={shade ? [{ fill: shade, line: shade }] : looks}
        x={x}
        y={y}
        onPoint={onPoint}
        says={says}
      />
    );
  });
}

/** The day of a bin, or its first and last. */
const daysOf = ({ from, to }: Bin, t: Texts<'bench'>): string =>
  to - from > 1 ? t('from', { from: isoFromSerial(from), to: isoFromSerial(to - 1) }) : isoFromSerial(from);

/** The edges of the values, moved out to places that lie no further from them than they are apart. */
function edgesWith(places: readonly number[], [from, to]: readonly [number, number]): [number, number] {
  const near = places.filter((place) => place >= from - (to - from) && place <= to + (to - from));
  return [Math.min(from, ...near), Math.max(to, ...near)];
}

/** The handles: literal thresholds, or the places of stops, wherever these are found among the values. */
function handlesOf(when: When, profile: ValueProfile): readonly { value: number; with: (value: number) => When }[] {
  const kind = kindOf(when);
  if (!kind.stops) return kind.thresholds(when);
  return kind.stops(when).flatMap((stop) => {
    const value = placeOnScale(stop.at, profile);
    return value === undefined ? [] : [{ value, with: stop.with }];
  });
}

/** The colour of each number, for conditions that shade them. */
function shadesOf(when: When, profile: ValueProfile): ((value: number) => string) | undefined {
  const { ramp, stops } = kindOf(when);
  const places = stops?.(when).map(({ at }) => placeOnScale(at, profile)) ?? [];
  if (!ramp || !isRising(places)) return undefined;
  const colors = ramp(when);
  return (value) => colors.at(value, places);
}

const isRising = (places: readonly (number | undefined)[]): places is number[] =>
  places.every((place, at) => place !== undefined && (at === 0 || place >= (places[at - 1] ?? NaN)));
