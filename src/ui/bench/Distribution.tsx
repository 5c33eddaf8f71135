import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useElementSize } from '@mantine/hooks';
import { max, tickStep } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { kindOf, type When } from '../../core/rules/kinds/registry';
import type { Threshold } from '../../core/rules/kinds/kind';
import type { Rule } from '../../core/rules/rule';
import { thresholdText } from '../../core/rules/sentence-words';
import { formatNumber } from '../../core/values/number-format';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Bench.module.css';

const MARGIN = { top: 22, bottom: 18, side: 10 };
const GRIP_PX = 6;

/** The real values that a rule judges, as a histogram, with its thresholds as handles to drag or to step with the arrow keys. */
export function Distribution({ rule }: { readonly rule: Rule }) {
  const session = useSession();
  const profile = useSessionState((state) => state.profile?.profile);
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
  const x = scaleLinear(edges[0] === edges[1] ? [edges[0]! - 1, edges[1]! + 1] : edges, [MARGIN.side, Math.max(width - MARGIN.side, MARGIN.side + 1)]);
  const floor = Math.max(height - MARGIN.bottom, MARGIN.top + 10);
  const y = scaleLinear([0, max(profile.bins, (bin) => bin.count) ?? 1], [floor, MARGIN.top + 4]);
  // Fine enough that any threshold worth having can be reached, coarse enough to land on round numbers.
  const step = tickStep(x.domain()[0]!, x.domain()[1]!, 160);
  const change = (threshold: Threshold<When>, value: number) => session.changeDraft({ ...rule, when: threshold.with(Number((Math.round(value / step) * step).toPrecision(12))) });

  return (
    <div ref={ref} className={classes.chart}>
    <svg width={width} height={height} role="group" aria-label={`How the values of ${field?.label ?? 'these cells'} are spread`}>
      {profile.bins.map((bin) => (
        <rect key={bin.from} className={classes.bin} x={x(bin.from) + 0.5} width={Math.max(x(bin.to) - x(bin.from) - 1, 1)} y={y(bin.count)} height={floor - y(bin.count)}>
          <title>{`${formatNumber(bin.from, format)} to ${formatNumber(bin.to, format)}: ${bin.count} cells`}</title>
        </rect>
      ))}
      <line className={classes.baseline} x1={MARGIN.side} x2={width - MARGIN.side} y1={floor + 0.5} y2={floor + 0.5} />
      {x.ticks(Math.max(2, Math.floor(width / 70))).map((tick) => (
        <text key={tick} className={classes.axis} x={x(tick)} y={floor + 14} textAnchor="middle">
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
