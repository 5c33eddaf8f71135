const CACHED = 20_000;
const fitted = new Map<string, string>();

/**
 * Sets the font, and gives the text, shortened with an ellipsis where it is wider than the room. Measured once per font,
 * room and text. The font is not read from the context, which would have to write it out each time.
 */
export function fitText(
  context: CanvasRenderingContext2D,
  text: string,
  { font, roomPx }: { readonly font: string; readonly roomPx: number },
): string {
  context.font = font;
  const key = `${font}\n${roomPx}\n${text}`;
  const known = fitted.get(key);
  if (known !== undefined) return known;
  if (fitted.size > CACHED) fitted.clear();
  const result = shorten(context, text.length > 500 ? text.slice(0, 500) : text, roomPx);
  fitted.set(key, result);
  return result;
}

function shorten(context: CanvasRenderingContext2D, text: string, roomPx: number): string {
  if (context.measureText(text).width <= roomPx) return text;
  const points = Array.from(text);
  let low = 0;
  let high = points.length;
  while (low < high) {
    const middle = (low + high + 1) >>> 1;
    if (context.measureText(`${points.slice(0, middle).join('')}…`).width <= roomPx) low = middle;
    else high = middle - 1;
  }
  return low === 0 ? '' : `${points.slice(0, low).join('')}…`;
}

/** Forgets all measures: once fonts have arrived, texts have other widths. */
export const forgetFits = (): void => fitted.clear();
