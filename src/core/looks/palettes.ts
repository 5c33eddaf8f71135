/**
 * Palettes of distinguishable colours. `okabe-ito`: Okabe and Ito (2008), "Color universal design", without black;
 * `set2`, `dark2` and `pastel` (Pastel1): Brewer (2003), ColorBrewer, Apache License 2.0.
 */
export const PALETTES = {
  'okabe-ito': ['#e69f00', '#56b4e9', '#009e73', '#f0e442', '#0072b2', '#d55e00', '#cc79a7'],
  set2: ['#66c2a5', '#fc8d62', '#8da0cb', '#e78ac3', '#a6d854', '#ffd92f', '#e5c494', '#b3b3b3'],
  dark2: ['#1b9e77', '#d95f02', '#7570b3', '#e7298a', '#66a61e', '#e6ab02', '#a6761d', '#666666'],
  pastel: ['#fbb4ae', '#b3cde3', '#ccebc5', '#decbe4', '#fed9a6', '#ffffcc', '#e5d8bd', '#fddaec', '#f2f2f2'],
} as const satisfies Record<string, readonly string[]>;

export type PaletteName = keyof typeof PALETTES;
