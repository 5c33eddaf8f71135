import type { CSSProperties } from 'react';
import type { Fill, LookBar } from '../core/looks/look';
import { inkFor } from './grid/painter/inks';
import type { Painted } from './grid/painter/scene';
import type { Tokens } from './theme/tokens';

/** The style of a cell in CSS, on a sheet of these tokens: for previews and pages outside the grid. */
export function paintedCss(look: Painted, tokens: Tokens): CSSProperties {
  const { fill, ground, text, bold, italic, underline, strike, borders } = look;
  const style: Record<string, string | number> = {};
  if (fill !== undefined) style.background = fillCss(fill);
  else if (ground !== undefined) style.background = ground;
  if ((text ?? fill ?? ground) !== undefined) style.color = inkFor(look, tokens);
  if (bold !== undefined) style.fontWeight = bold ? 650 : 420;
  if (italic) style.fontStyle = 'italic';
  const lines = [underline && 'underline', strike && 'line-through'].filter(Boolean);
  if (lines.length) style.textDecoration = lines.join(' ');
  for (const [side, border] of borders)
    style[`border${side[0]!.toUpperCase()}${side.slice(1)}`] = `${border.width}px ${border.style} ${border.color}`;
  return style;
}

function fillCss(fill: Fill): string {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return `color-mix(in srgb, ${fill.color} ${fill.opacity * 100}%, transparent)`;
  if ('from' in fill) return `linear-gradient(${90 + (fill.angle ?? 0)}deg, ${fill.from}, ${fill.to})`;
  return `repeating-linear-gradient(45deg, ${fill.color} 0 1px, ${fill.on ?? 'transparent'} 1px 4px)`;
}

/** A bar behind a text, in CSS; it lies over the fill. */
export function barCss({ start, end, color, style }: LookBar): string {
  const [from, to] = [100 * Math.min(start, end), 100 * Math.max(start, end)];
  const faint = style === 'gradient' ? `color-mix(in srgb, ${color} 25%, transparent)` : color;
  return `linear-gradient(90deg, transparent ${from}%, ${faint} ${from}%, ${color} ${to}%, transparent ${to}%)`;
}
