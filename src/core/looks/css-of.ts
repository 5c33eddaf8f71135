import { SIDES, type Fill, type LookBar, type LookValues } from './look';
import type { Style } from './style';

/** The style of a cell, properties of looks and of ordinary formatting alike. */
export type ShownProperties = Partial<LookValues> & Omit<Style, keyof LookValues>;

/**
 * The declarations of a `style` attribute (CSS) for what a cell shows; empty where it shows nothing special. Icons and
 * number formats are no style.
 */
export function cssOf(shown: ShownProperties): string {
  const { fill, text, bold, italic, underline, strike, align, stand, wrap, sizePx, bar } = shown;
  const lines = [underline && 'underline', strike && 'line-through'].filter(Boolean).join(' ');
  const layers = [bar ? barLayer(bar) : '', fill === undefined ? '' : fillLayer(fill)].filter(Boolean).join(',');
  return [
    typeof fill === 'string' && !bar ? `background-color:${fill}` : layers && `background:${layers}`,
    text && `color:${text}`,
    bold && 'font-weight:bold',
    italic && 'font-style:italic',
    lines && `text-decoration:${lines}`,
    align && `text-align:${align}`,
    stand && `vertical-align:${stand}`,
    wrap && 'white-space:pre-wrap',
    sizePx && `font-size:${sizePx}px`,
    ...SIDES.map((side) => border(side, shown)),
  ]
    .filter(Boolean)
    .join(';');
}

function border(side: (typeof SIDES)[number], shown: ShownProperties): string | false {
  const line = shown[`border.${side}`] ?? shown.border?.[side];
  return line !== undefined && `border-${side}:${line.width}px ${line.style} ${line.color}`;
}

function fillLayer(fill: Fill): string {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return `color-mix(in srgb, ${fill.color} ${fill.opacity * 100}%, transparent)`;
  if ('from' in fill) return `linear-gradient(${90 + (fill.angle ?? 0)}deg, ${fill.from}, ${fill.to})`;
  return `repeating-linear-gradient(45deg, ${fill.color} 0 1px, ${fill.on ?? 'transparent'} 1px 4px)`;
}

/** A bar from one share of the cell's width to another. */
function barLayer({ start, end, color }: LookBar): string {
  const [from, to] = [Math.min(start, end) * 100, Math.max(start, end) * 100];
  return `linear-gradient(90deg, transparent ${from}%, ${color} ${from}% ${to}%, transparent ${to}%)`;
}
