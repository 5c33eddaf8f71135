import { useFormatter } from 'use-intl';
import { dateTicks } from '../picture/date-ticks';
import classes from './Past.module.css';

interface Props {
  /** The ends of the time that is shown, as serial dates. */
  readonly span: readonly [from: number, to: number];
  readonly x: (moment: number) => number;
  readonly width: number;
  /** Where the picture ends, in pixels from the top. */
  readonly floor: number;
}

/** Dates under a picture of time. */
export function TimeAxis({ span, x, width, floor }: Props) {
  const { dateTime } = useFormatter();
  const ticks = dateTicks(span, Math.max(2, Math.floor(width / 110)), (date, parts) => dateTime(date, parts));
  return ticks.map(({ value, says }) => (
    <text key={value} className={classes.axisText} x={x(value)} y={floor + 16} textAnchor="middle">
      {says}
    </text>
  ));
}
