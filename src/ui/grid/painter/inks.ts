import { contrastRatio, luminance, READABLE } from '../../../core/looks/contrast';
import type { Hex } from '../../../core/looks/look';
import { groundOf, legible, mixed, readableText } from '../../../core/looks/readable-text';
import type { Tokens } from '../../theme/tokens';
import type { Painted } from './scene';

type Ground = Pick<Painted, 'fill' | 'ground' | 'text'>;

/** Worked out once for each way of painting. */
const inks = new Map<string, Hex>();
const bars = new Map<string, Hex>();

/**
 * The colour of what stands in a cell. A look without a text colour gets one that reads on its fill. On a dark sheet a
 * text colour that stands on the sheet itself is made lighter, as far as it must be to be read.
 */
export function inkFor({ fill, ground, text }: Ground, tokens: Tokens): Hex {
  const under = fill ?? ground;
  if (under === undefined && text === undefined) return tokens.ink;
  // Two colours that were chosen together are as they were chosen; the advice speaks of those that do not read.
  if (typeof under === 'string' && text !== undefined) return text;
  const key = `${tokens.sheet} ${typeof under === 'string' ? under : JSON.stringify(under)} ${text}`;
  let ink = inks.get(key);
  if (ink === undefined) inks.set(key, (ink = inkOn(under, text, tokens)));
  return ink;
}

function inkOn(under: Ground['fill'], text: Hex | undefined, { sheet }: Tokens): Hex {
  if (text === undefined) return under === undefined ? sheet : readableText(under, sheet);
  const isOnSheet = under === undefined || (typeof under === 'object' && 'opacity' in under);
  return isOnSheet && luminance(sheet) < 0.5
    ? legible(text, under === undefined ? sheet : groundOf(under, sheet))
    : text;
}

/** The colour of a bar, nearer to the sheet's where the number over it could not be read. */
export function barColor(color: Hex, ink: Hex, { sheet }: Tokens): Hex {
  const key = `${sheet} ${color} ${ink}`;
  let shown = bars.get(key);
  if (shown === undefined) {
    shown = color;
    for (let share = 0.1; share < 1 && contrastRatio(shown, ink) < READABLE; share += 0.1)
      shown = mixed(color, sheet, share);
    bars.set(key, shown);
  }
  return shown;
}
