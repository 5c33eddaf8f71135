import { rgb } from 'd3-color';
import { contrastRatio, READABLE } from './contrast';
import type { Fill, Hex } from './look';

const DARK = '#111111';
const LIGHT = '#ffffff';

const SHEET = '#ffffff';

/** What was found last, by ground: scales ask for the same shades in hundreds of thousands of cells. */
const found = new Map<Hex, Hex>();
const MOST_FOUND = 4096;

/** The text colour that is easier to read on a fill: dark or light, whichever contrasts more (WCAG 2.x). */
export function readableText(fill: Fill, sheet = SHEET): Hex {
  const ground = groundOf(fill, sheet);
  let text = found.get(ground);
  if (text === undefined) {
    if (found.size === MOST_FOUND) found.clear();
    found.set(ground, (text = textOn(ground)));
  }
  return text;
}

function textOn(ground: Hex): Hex {
  const better = contrastRatio(DARK, ground) >= contrastRatio(LIGHT, ground) ? DARK : LIGHT;
  // On a middling ground neither is enough; black always is where white is not.
  return contrastRatio(better, ground) >= READABLE ? better : '#000000';
}

/** A text colour, moved towards white or black as far as it must be to be read on a ground (WCAG 2.x). */
export function legible(text: Hex, ground: Hex): Hex {
  const end = contrastRatio('#ffffff', ground) >= contrastRatio('#000000', ground) ? '#ffffff' : '#000000';
  let shown = text;
  for (let share = 0.05; share <= 1 && contrastRatio(shown, ground) < READABLE; share += 0.05)
    shown = mixed(text, end, share);
  return shown;
}

/** One colour that stands for a fill: over the sheet where it lets that through, the middle of a gradient. */
export function groundOf(fill: Fill, sheet = SHEET): Hex {
  if (typeof fill === 'string') return fill;
  if ('opacity' in fill) return mixed(sheet, fill.color, fill.opacity);
  if ('from' in fill) return mixed(fill.from, fill.to, 0.5);
  return fill.on ?? sheet;
}

/** A share of the way from one colour to another. */
export function mixed(one: Hex, other: Hex, share: number): Hex {
  const [a, b] = [rgb(one), rgb(other)];
  return rgb(a.r + (b.r - a.r) * share, a.g + (b.g - a.g) * share, a.b + (b.b - a.b) * share).formatHex();
}
