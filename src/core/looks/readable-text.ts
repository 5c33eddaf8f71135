import { rgb } from 'd3-color';
import { contrastRatio } from './contrast';
import type { Fill, Hex } from './look';

const DARK = '#111111';
const LIGHT = '#ffffff';

/** The text colour that is easier to read on a fill: dark or light, whichever contrasts more (WCAG 2.x). */
export function readableText(fill: Fill): Hex {
  const ground = groundOf(fill);
  return contrastRatio(DARK, ground) >= contrastRatio(LIGHT, ground) ? DARK : LIGHT;
}

/** One colour that stands for a fill: over white where it lets the ground through, the middle of a gradient. */
export function groundOf(fill: Fill): Hex {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return mixed('#ffffff', fill.color, fill.opacity);
  if ('from' in fill) return mixed(fill.from, fill.to, 0.5);
  return fill.on ?? '#ffffff';
}

function mixed(one: Hex, other: Hex, share: number): Hex {
  const [a, b] = [rgb(one), rgb(other)];
  return rgb(a.r + (b.r - a.r) * share, a.g + (b.g - a.g) * share, a.b + (b.b - a.b) * share).formatHex();
}
