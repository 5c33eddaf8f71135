type TextContext = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

const CACHED = 4000;
const wrapped = new Map<string, readonly string[]>();

/**
 * Sets the font, and gives a text in lines no wider than the room, broken between words, and within a word that is wider
 * than that.
 */
export function wrapText(
  context: TextContext,
  text: string,
  { font, roomPx }: { readonly font: string; readonly roomPx: number },
): readonly string[] {
  context.font = font;
  const key = `${font}\n${roomPx}\n${text}`;
  const known = wrapped.get(key);
  if (known) return known;
  if (wrapped.size > CACHED) wrapped.clear();
  const lines = text
    .slice(0, 2000)
    .split('\n')
    .flatMap((line) => linesOf(context, line, roomPx));
  wrapped.set(key, lines);
  return lines;
}

function linesOf(context: TextContext, line: string, roomPx: number): string[] {
  const lines: string[] = [];
  let current = '';
  for (const word of line.split(/(?<=\s)/)) {
    if (current !== '' && context.measureText((current + word).trimEnd()).width > roomPx) {
      lines.push(current.trimEnd());
      current = '';
    }
    for (const letter of Array.from(word)) {
      if (current !== '' && context.measureText((current + letter).trimEnd()).width > roomPx) {
        lines.push(current.trimEnd());
        current = letter;
      } else current += letter;
    }
  }
  return [...lines, current.trimEnd()];
}

/** Forgets all lines: once fonts have arrived, texts have other widths. */
export const forgetWraps = (): void => wrapped.clear();
