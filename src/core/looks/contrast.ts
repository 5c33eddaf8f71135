import { rgb } from 'd3-color';

/** Relative luminance of an sRGB colour, 0 to 1 (WCAG 2.x). */
export function luminance(hex: string): number {
  const { r, g, b } = rgb(hex);
  const linear = (channel: number): number => {
    const share = channel / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
}

/** The contrast that text needs to be read (WCAG 2.x, 1.4.3). */
export const READABLE = 4.5;

/** Contrast ratio of two colours, 1 to 21 (WCAG 2.x). */
export function contrastRatio(one: string, other: string): number {
  const [a, b] = [luminance(one), luminance(other)];
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}
