import { cumsum } from 'd3-array';
import { memo } from 'react';
import type { ScaleLinear } from 'd3-scale';
import { itemAt } from '../../../core/values/item-at';
import type { Bin } from '../../../core/stats/profile-values';
import classes from './HistogramBar.module.css';
import type { OutcomeColors } from './outcome-colors';

interface Props {
  readonly bin: Bin;
  readonly looks: readonly (OutcomeColors | null)[];
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleLinear<number, number>;
  readonly says: (bin: Bin) => string;
  /** Hears which bar is pointed at, and null when no more. */
  readonly onPoint: (bin: Bin | null) => void;
}

/**
 * One bin of a histogram: what a rule paints in the colours it paints it with, from the bottom; the rest in grey. It
 * renders again only where it differs: a threshold that is dragged passes few bars.
 */
export const HistogramBar = memo(function HistogramBar({ bin, looks, x, y, says, onPoint }: Props) {
  const parts = bin.outcomes.flatMap((count, outcome) => {
    const look = looks[outcome];
    return count > 0 && look ? [{ outcome, count, look }] : [];
  });
  const ends = cumsum(parts, ({ count }) => count);
  const left = x(bin.from) + 0.5;
  const width = Math.max(x(bin.to) - 0.5, x(bin.from) + 1.5) - left;
  return (
    <g onPointerEnter={() => onPoint(bin)} onPointerLeave={() => onPoint(null)}>
      <rect
        className={classes.binRoom}
        x={left}
        width={width}
        y={y.range()[1]}
        height={itemAt(y.range(), 0) - itemAt(y.range(), 1)}
      >
        <title>{says(bin)}</title>
      </rect>
      <rect
        className={classes.bin}
        x={left}
        width={width}
        y={y(bin.count)}
        height={y(0) - y(bin.count)}
        pointerEvents="none"
      />
      {parts.map(({ outcome, count, look }, at) => (
        <rect
          key={outcome}
          x={left}
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
});
