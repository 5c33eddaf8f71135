import type { CSSProperties } from 'react';
import { lookProperties, SIDES, type BorderSide, type Fill, type Look } from '../../core/looks/look';
import classes from './Swatch.module.css';
import { useLooks } from './use-looks';

interface Props {
  readonly look: Look | null;
  readonly text?: string;
  readonly isSmall?: boolean;
}

/** A look as it really is, on a few characters. */
export function Swatch({ look, text = 'Aa 9.1', isSmall = false }: Props) {
  const { saved } = useLooks();
  return (
    <span className={classes.swatch} data-small={isSmall} style={look ? lookStyle(look, saved) : undefined}>
      {text}
    </span>
  );
}

/** A look in CSS, for previews outside the grid. */
function lookStyle(look: Look, saved: Readonly<Record<string, Look>>): CSSProperties {
  const properties = lookProperties(look, saved);
  const style: Record<string, string | number> = {};
  const fill = properties.get('fill') as Fill | undefined;
  if (fill !== undefined) style.background = fillStyle(fill);
  if (properties.has('text')) style.color = properties.get('text') as string;
  if (properties.get('bold') === true) style.fontWeight = 650;
  if (properties.get('italic') === true) style.fontStyle = 'italic';
  const lines = [properties.get('underline') === true && 'underline', properties.get('strike') === true && 'line-through'].filter(Boolean);
  if (lines.length) style.textDecoration = lines.join(' ');
  for (const side of SIDES) {
    const border = properties.get(`border.${side}`) as BorderSide | undefined;
    if (border) style[`border${side[0]!.toUpperCase()}${side.slice(1)}`] = `${border.width}px ${border.style} ${border.color}`;
  }
  return style;
}

function fillStyle(fill: Fill): string {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return `color-mix(in srgb, ${fill.color} ${fill.opacity * 100}%, transparent)`;
  if ('from' in fill) return `linear-gradient(${90 + (fill.angle ?? 0)}deg, ${fill.from}, ${fill.to})`;
  return `repeating-linear-gradient(45deg, ${fill.color} 0 1px, ${fill.on ?? 'transparent'} 1px 4px)`;
}
