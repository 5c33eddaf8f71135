import { contrastRatio, luminance, READABLE } from '../../../core/looks/contrast';
import type { Hex } from '../../../core/looks/look';
import { groundOf, legible, mixed, readableText } from '../../../core/looks/readable-text';
import type { Tokens } from '../../theme/tokens';
import type { Painted } from './scene';

type Ground = Pick<Painted, 'fill' | 'ground' | 'text'>;

/** Colours that are held; more than a sheet shows at once. */
const MAX_HELD = 4000;

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
  return remembered(inks, key, () => inkOn(under, text, tokens));
}

function inkOn(under: Ground['fill'], text: Hex | undefined, { sheet }: Tokens): Hex {
  if (text === undefined) return under === undefined ? sheet : readableText(under, sheet);
  const isOnSheet = under === undefined || (typeof under === 'object' && 'opacity' in under);
  return isOnSheet && luminance(sheet) < 0.5
    ? legible(text, under === undefined ? sheet : groundOf(under, sheet))
    : text;
}

/** The colour of a bar. Where what stands over it could not be read, it is nearer to one on which that reads. */
export function barColor(color: Hex, ink: Hex, { sheet }: Tokens): Hex {
  const key = `${sheet} ${color} ${ink}`;
  return remembered(bars, key, () => {
    const end = contrastRatio(sheet, ink) >= READABLE ? sheet : readableText(ink);
    let shown = color;
    for (let share = 0.1; share < 1 && contrastRatio(shown, ink) < READABLE; share += 0.1)
      shown = mixed(color, end, share);
    return shown;
  });
}

/** What is held under a key, or is worked out now. Colours that run through a scale must not gather for ever. */
function remembered(held: Map<string, Hex>, key: string, work: () => Hex): Hex {
  const known = held.get(key);
  if (known !== undefined) return known;
  if (held.size >= MAX_HELD) held.clear();
  const color = work();
  held.set(key, color);
  return color;
}
