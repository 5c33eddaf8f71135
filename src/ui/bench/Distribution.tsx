import { useDeferredValue, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useElementSize } from '@mantine/hooks';
import { useComputedColorScheme } from '@mantine/core';
import { cumsum, max, tickStep } from 'd3-array';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { savedLooks, type Theme } from '../../core/looks/first-family';
import { lookProperties, type BorderSide } from '../../core/looks/look';
import type { Bin } from '../../core/stats/profile-values';
import { TOKENS } from '../theme/tokens';
import { kindOf, type When } from '../../core/rules/kinds/registry';
import type { Threshold } from '../../core/rules/kinds/kind';
import type { Rule } from '../../core/rules/rule';
import { thresholdText } from '../../core/rules/sentence-words';
import { formatNumber } from '../../core/values/number-format';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Bench.module.css';

const MARGIN = { top: 22, bottom: 23, side: 10 };
const GRIP_PX = 6;

/** The real values that a rule judges, as a histogram, with its thresholds as handles to drag or to step with the arrow keys. */
export function Distribution({ rule }: { readonly rule: Rule }) {
  const session = useSession();
  const theme = useComputedColorScheme('light');
  const profile = useDeferredValue(useSessionState((state) => state.profile?.profile));
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const { ref, width, height } = useElementSize<HTMLDivElement>();
  if (!profile) return <div ref={ref} className={classes.chart} />;
  if (profile.numbers === 0) return <p className={classes.none}>There are no numbers here to show.</p>;

  const { reads, when } = rule;
  const field = 'fields' in reads ? fields.find((candidate) => candidate.id === reads.fields[0]) : undefined;
  const format = field?.format ?? null;
  const first = profile.bins[0]!;
  const last = profile.bins.at(-1)!;
  const edges = [first.from, last.to];
  const x = scaleLinear(edges[0] === edges[1] ? [edges[0]! - 1, edges[1]! + 1] : edges, [
    MARGIN.side,
    Math.max(width - MARGIN.side, MARGIN.side + 1),
  ]);
  const floor = Math.max(height - MARGIN.bottom, MARGIN.top + 10);
  const y = scaleLinear([0, max(profile.bins, (bin) => bin.count) ?? 1], [floor, MARGIN.top + 4]);
  // Fine enough that any threshold worth having can be reached, coarse enough to land on round numbers.
  const step = tickStep(x.domain()[0]!, x.domain()[1]!, 160);
  const looks = outcomeLooks(rule, theme);
  const change = (threshold: Threshold<When>, value: number) =>
    session.changeDraft({ ...rule, when: threshold.with(Number((Math.round(value / step) * step).toPrecision(12))) });

  return (
    <div ref={ref} className={classes.chart}>
      <svg width={width} height={height} role="group" aria-label={`How the values of ${field?.label ?? 'these cells'} are spread`}>
        {profile.bins.map((bin) => (
          <Bar
            key={bin.from}
            bin={bin}
            looks={looks}
            x={[x(bin.from) + 0.5, Math.max(x(bin.to) - 0.5, x(bin.from) + 1.5)]}
            y={y}
            says={`${formatNumber(bin.from, format)} to ${formatNumber(bin.to, format)}: ${bin.count} cells`}
          />
        ))}
        <line className={classes.baseline} x1={MARGIN.side} x2={width - MARGIN.side} y1={floor + 0.5} y2={floor + 0.5} />
        {x.ticks(Math.max(2, Math.floor(width / 70))).map((tick) => (
          <text key={tick} className={classes.axis} x={x(tick)} y={floor + 19} textAnchor="middle">
            {thresholdText(tick, format)}
          </text>
        ))}
        {kindOf(when)
          .thresholds(when)
          .map((threshold, at, all) => (
            <Handle
              key={at}
              label={all.length > 1 ? `Threshold ${at + 1}` : 'Threshold'}
              value={threshold.value}
              shown={thresholdText(threshold.value, format)}
              x={Math.max(0, Math.min(width, x(threshold.value)))}
              top={MARGIN.top - 4 + (at % 2) * 3}
              bottom={floor}
              range={x.domain() as [number, number]}
              step={step}
              valueAt={(px) => x.invert(px)}
              onChange={(value) => change(threshold, value)}
            />
          ))}
      </svg>
    </div>
  );
}

interface BarProps {
  readonly bin: Bin;
  readonly looks: readonly (Swatches | null)[];
  readonly x: readonly [number, number];
  readonly y: ScaleLinear<number, number>;
  readonly says: string;
}

/** One bin: what a rule paints in the colours it paints it with, from the bottom; the rest in grey. */
function Bar({ bin, looks, x, y, says }: BarProps) {
  const parts = bin.outcomes.flatMap((count, outcome) => {
    const look = looks[outcome];
    return count > 0 && look ? [{ outcome, count, look }] : [];
  });
  const ends = cumsum(parts, ({ count }) => count);
  const width = x[1] - x[0];
  return (
    <g>
      <rect className={classes.bin} x={x[0]} width={width} y={y(bin.count)} height={y(0) - y(bin.count)}>
        <title>{says}</title>
      </rect>
      {parts.map(({ outcome, count, look }, at) => (
        <rect
          key={outcome}
          x={x[0]}
          width={width}
          y={y(ends[at]!)}
          height={y(ends[at]! - count) - y(ends[at]!)}
          fill={look.fill}
          stroke={look.line}
          strokeWidth={0.75}
          pointerEvents="none"
        />
      ))}
    </g>
  );
}

interface Swatches {
  readonly fill: string;
  readonly line: string;
}

/** The colours that stand for each outcome of a rule, by its number; null where it has no look. */
function outcomeLooks(rule: Rule, theme: Theme): readonly (Swatches | null)[] {
  const saved = savedLooks(theme);
  const looks = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? null];
  return looks.map((look) => {
    if (!look) return null;
    const properties = lookProperties(look, saved);
    const fill = properties.get('fill');
    const text = properties.get('text') as string | undefined;
    const border = properties.get('border.top') as BorderSide | undefined;
    const line = text ?? border?.color ?? TOKENS[theme].ink;
    return { fill: typeof fill === 'string' ? fill : line, line };
  });
}

interface HandleProps {
  readonly label: string;
  readonly value: number;
  readonly shown: string;
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
  readonly range: readonly [number, number];
  readonly step: number;
  readonly valueAt: (px: number) => number;
  readonly onChange: (value: number) => void;
}

function Handle({ label, value, shown, x, top, bottom, range, step, valueAt, onChange }: HandleProps) {
  const group = useRef<SVGGElement>(null);
  const [isHeld, setHeld] = useState(false);
  const move = (event: PointerEvent) => {
    const left = group.current!.ownerSVGElement!.getBoundingClientRect().left;
    onChange(Math.max(range[0], Math.min(range[1], valueAt(event.clientX - left))));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -step, ArrowDown: -step, ArrowRight: step, ArrowUp: step, PageDown: -10 * step, PageUp: 10 * step }[event.key];
    const to = event.key === 'Home' ? range[0] : event.key === 'End' ? range[1] : by === undefined ? undefined : value + by;
    if (to === undefined) return;
    event.preventDefault();
    onChange(to);
  };
  return (
    <g
      ref={group}
      className={classes.handle}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={range[0]}
      aria-valuemax={range[1]}
      aria-valuenow={value}
      aria-valuetext={shown}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setHeld(true);
      }}
      onPointerMove={(event) => isHeld && move(event)}
      onPointerUp={() => setHeld(false)}
      onPointerCancel={() => setHeld(false)}
    >
      <rect x={x - 14} y={top - 16} width={28} height={bottom - top + 24} fill="transparent" style={{ cursor: 'ew-resize' }} />
      <line className={classes.handleLine} x1={x} x2={x} y1={top} y2={bottom} />
      <circle className={classes.grip} cx={x} cy={bottom} r={GRIP_PX} />
      <text className={classes.tag} x={x} y={top - 4} textAnchor="middle">
        {shown}
      </text>
    </g>
  );
}
