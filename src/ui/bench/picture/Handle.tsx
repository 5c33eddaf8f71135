import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import classes from './Handle.module.css';

const GRIP_PX = 6;
const EDGE_PX = 24;

interface HandleProps {
  readonly label: string;
  readonly value: number;
  readonly shown: string;
  readonly x: number;
  /** Width of the picture: at its edges the tag stands beside the handle. */
  readonly room: number;
  readonly top: number;
  readonly bottom: number;
  readonly range: readonly [number, number];
  readonly step: number;
  readonly valueAt: (px: number) => number;
  readonly onChange: (value: number) => void;
}

/** A threshold in the picture: dragged, or stepped with the arrow keys. */
export function Handle({ label, value, shown, x, room, top, bottom, range, step, valueAt, onChange }: HandleProps) {
  const group = useRef<SVGGElement>(null);
  const [isHeld, setHeld] = useState(false);
  const move = (event: PointerEvent) => {
    const left = group.current!.ownerSVGElement!.getBoundingClientRect().left;
    onChange(Math.max(range[0], Math.min(range[1], valueAt(event.clientX - left))));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = valueAfter(event.key, { value, step, range });
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
      <rect
        x={x - 14}
        y={top - 16}
        width={28}
        height={bottom - top + 24}
        fill="transparent"
        style={{ cursor: 'ew-resize' }}
      />
      <line className={classes.handleLine} x1={x} x2={x} y1={top} y2={bottom} />
      <circle className={classes.grip} cx={x} cy={bottom} r={GRIP_PX} />
      <text
        className={classes.tag}
        x={x}
        y={top - 4}
        textAnchor={x < EDGE_PX ? 'start' : x > room - EDGE_PX ? 'end' : 'middle'}
      >
        {shown}
      </text>
    </g>
  );
}

/** Where a key takes a value; undefined for other keys. */
function valueAfter(
  key: string,
  { value, step, range }: Pick<HandleProps, 'value' | 'step' | 'range'>,
): number | undefined {
  if (key === 'Home') return range[0];
  if (key === 'End') return range[1];
  const by = {
    ArrowLeft: -step,
    ArrowDown: -step,
    ArrowRight: step,
    ArrowUp: step,
    PageDown: -10 * step,
    PageUp: 10 * step,
  }[key];
  return by === undefined ? undefined : value + by;
}
