const PX_IN: Readonly<Record<string, number>> = { px: 1, pt: 4 / 3, in: 96, cm: 96 / 2.54, mm: 96 / 25.4, pc: 16 };

/** A length with its unit (ISO/IEC 26300-1, 18.3.18) in pixels of 1/96 inch; undefined for anything else. */
export function readLength(text: string | undefined): number | undefined {
  const match = /^(-?\d*\.?\d+)(px|pt|in|cm|mm|pc)$/.exec(text ?? '');
  const px = PX_IN[match?.[2] ?? ''];
  return match && px !== undefined ? Number(match[1]) * px : undefined;
}

/** Pixels as a length in points. */
export const pointsOf = (px: number): string => `${Math.round(px * 0.75 * 100) / 100}pt`;
