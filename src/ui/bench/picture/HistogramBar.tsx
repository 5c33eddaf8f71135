import { cumsum } from 'd3-array';
import type { ScaleLinear } from 'd3-scale';
import { itemAt } from '../../../core/values/item-at';
import type { Bin } from '../../../core/stats/profile-values';
import classes from './HistogramBar.module.css';
import type { OutcomeColors } from './outcome-colors';

interface Props {
  readonly bin: Bin;
  readonly looks: readonly (OutcomeColors | null)[];
  readonly x: readonly [number, number];
  readonly y: ScaleLinear<number, number>;
  readonly says: string;
  /** Hears when the bar is pointed at, and when no more. */
  readonly onPoint: (isPointed: boolean) => void;
}

/** One bin of a histogram: what a rule paints in the colours it paints it with, from the bottom; the rest in grey. */
export function HistogramBar({ bin, looks, x, y, says, onPoint }: Props) {
  const parts = bin.outcomes.flatMap((count, outcome) => {
    const look = looks[outcome];
    return count > 0 && look ? [{ outcome, count, look }] : [];
  });
  const ends = cumsum(parts, ({ count }) => count);
  const width = x[1] - x[0];
  return (
    <g onPointerEnter={() => onPoint(true)} onPointerLeave={() => onPoint(false)}>
      <rect
        className={classes.binRoom}
        x={x[0]}
        width={width}
        y={y.range()[1]}
        height={itemAt(y.range(), 0) - itemAt(y.range(), 1)}
      >
        <title>{says}</title>
      </rect>
      <rect
        className={classes.bin}
        x={x[0]}
        width={width}
        y={y(bin.count)}
        height={y(0) - y(bin.count)}
        pointerEvents="none"
      />
      {parts.map(({ outcome, count, look }, at) => (
        <rect
          key={outcome}
          x={x[0]}
          width={width}
          y={y(itemAt(ends, at))}
          height={y(itemAt(ends, at) - count) - y(itemAt(ends, at))}
          fill={look.fill}
          stroke={look.line}
          strokeWidth={0.75}
          pointerEvents="none"
        />
      ))}
    </g>
  );
}
