import { extent } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useTranslations } from 'use-intl';
import { inDigits } from '../../core/values/counted';
import { useMoments } from '../use-moments';
import classes from './CountLine.module.css';

const [WIDTH, HEIGHT, EDGE] = [236, 44, 3];

interface Props {
  readonly counts: readonly (readonly [at: number, painted: number])[];
  readonly name: string;
}

/** How many cells a rule painted, over time: a step wherever something entered or left. */
export function CountLine({ counts, name }: Props) {
  const t = useTranslations('findings');
  const moment = useMoments();
  const [first, last] = extent(counts, ([at]) => at);
  const [least, most] = extent(counts, ([, painted]) => painted) as [number, number];
  const now = counts.at(-1);
  if (first === undefined || last === undefined || !now) return null;
  const x = scaleTime([first, Math.max(last, first + 1)], [EDGE, WIDTH - 44]);
  // Only the course of the count matters: the line has the whole height for it.
  const y = scaleLinear([Math.max(0, least - 1), most + 1], [HEIGHT - EDGE, EDGE]);
  const path = line<readonly [number, number]>(
    ([at]) => x(at),
    ([, painted]) => y(painted),
  ).curve(curveStepAfter)(counts);
  const words = t('nameNowCellsNow', { name, now: now[1], most, first: moment(first) });
  return (
    <svg className={classes.line} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words}>
      <line x1={EDGE} x2={WIDTH - 44} y1={HEIGHT - EDGE} y2={HEIGHT - EDGE} className={classes.axis} />
      <path d={path ?? ''} className={classes.steps} />
      <circle cx={x(now[0])} cy={y(now[1])} r="2.5" className={classes.dot} />
      <text x={x(now[0]) + 7} y={y(now[1])} dominantBaseline="middle" className={classes.count}>
        {inDigits(now[1])}
      </text>
    </svg>
  );
}
