import { useElementSize } from '@mantine/hooks';
import { extent, max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useTranslations } from 'use-intl';
import type { PastBin, PastSummary } from '../../../core/findings/past/summarize-spells';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import type { OutcomeColors } from '../picture/outcome-colors';
import classes from './Past.module.css';
import { timeFrame } from './time-frame';
import { TimeAxis } from './TimeAxis';

/** The share of the height that the line of the count has; the bars have the rest. */
const LINE_SHARE = 0.5;

interface Props {
  readonly summary: Omit<PastSummary, 'most'>;
  /** The rule as it is saved, to be compared with. */
  readonly saved: Omit<PastSummary, 'most'> | null;
  readonly color: OutcomeColors | null;
}

/** How many cells a rule would have had, as a line, over what entered (upwards) and left (downwards) in each span. */
export function PastChart({ summary, saved, color }: Props) {
  const t = useTranslations('past');
  const { ref, width, height } = useElementSize<HTMLDivElement>();
  const { bins, from, to } = summary;
  const { x, top, floor, left, right } = timeFrame([bins[0]?.from ?? from, to], { width, height });
  const middle = top + (floor - top) * LINE_SHARE;
  // Only the course of the count matters: the line has the whole height for it.
  const counts = [summary, ...(saved ? [saved] : [])].flatMap((each) => [
    each.before,
    ...each.bins.map(({ count }) => count),
  ]);
  const [least = 0, most = 1] = extent(counts);
  const y = scaleLinear([Math.max(0, least - 1), most + 1], [middle - 4, top]);
  const moves = max(bins, ({ entered, left }) => Math.max(entered, left)) ?? 1;
  const axis = (middle + floor) / 2;
  const barHeight = scaleLinear([0, Math.max(1, moves)], [0, (floor - middle) / 2 - 2]);
  const now = bins.at(-1)?.count ?? 0;
  return (
    <div ref={ref} className={classes.chart}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={t('chart', { entered: summary.entered, left: summary.left, count: now })}
      >
        {saved && <path className={classes.saved} d={courseOf(saved, { x, y })} />}
        <path className={classes.course} d={courseOf(summary, { x, y })} />
        <line className={classes.axisLine} x1={left} x2={right} y1={axis} y2={axis} />
        {bins.map((bin) => (
          <Moves key={bin.from} bin={bin} color={color} place={{ x, barHeight, axis }} />
        ))}
        <TimeAxis span={[from, to]} x={x} width={width} floor={floor} />
      </svg>
    </div>
  );
}

type Scale = (value: number) => number;

/** The count over time, as a path of steps that begins with what was there before. */
function courseOf(
  { bins, before }: Omit<PastSummary, 'most'>,
  { x, y }: { readonly x: Scale; readonly y: Scale },
): string {
  const [first] = bins;
  const points = [
    ...(first ? [[first.from, before] as const] : []),
    ...bins.map(({ to, count }) => [to, count] as const),
  ];
  const path = line<readonly [number, number]>(
    ([at]) => x(at),
    ([, count]) => y(count),
  ).curve(curveStepAfter)(points);
  return path ?? '';
}

interface MovesProps {
  readonly bin: PastBin;
  readonly color: OutcomeColors | null;
  readonly place: { readonly x: Scale; readonly barHeight: Scale; readonly axis: number };
}

/** What entered and left in one span. */
function Moves({ bin, color, place: { x, barHeight, axis } }: MovesProps) {
  const t = useTranslations('past');
  const { from, to, entered, left, count } = bin;
  if (entered === 0 && left === 0) return null;
  const [start, width] = [x(from) + 0.5, Math.max(1.5, x(to) - x(from) - 1)];
  const [up, down] = [barHeight(entered), barHeight(left)];
  return (
    <g>
      <title>{t('binEntered', { from: isoFromSerial(from), entered, left, count })}</title>
      <rect
        x={start}
        width={width}
        y={axis - up}
        height={up}
        fill={color?.fill}
        stroke={color?.line}
        strokeWidth={0.75}
      />
      <rect className={classes.leftBar} x={start} width={width} y={axis + 1} height={down} />
    </g>
  );
}
