import { scaleLinear } from 'd3-scale';

const MARGIN = { top: 8, bottom: 22, side: 10 };

/** Where a picture over time is drawn: dates along it in pixels, and the places of its edges. */
export function timeFrame(
  span: readonly [from: number, to: number],
  { width, height }: { readonly width: number; readonly height: number },
) {
  const { top, bottom, side } = MARGIN;
  const right = Math.max(width - side, side + 1);
  return { x: scaleLinear(span, [side, right]), top, floor: Math.max(height - bottom, top + 20), left: side, right };
}
