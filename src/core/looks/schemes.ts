import {
  schemeBlues,
  schemeBrBG,
  schemeGreens,
  schemeOrRd,
  schemePuOr,
  schemePurples,
  schemeRdYlBu,
  schemeYlGnBu,
} from 'd3-scale-chromatic';
import { itemAt } from '../values/item-at';

/**
 * Colours from low to high, one after another in one direction or away from a middle. Brewer (2003), ColorBrewer,
 * Apache License 2.0, five classes each; all of them are listed there as safe for colour-blind readers.
 */
export const SCHEMES = {
  blues: { words: 'pale to deep blue', colors: itemAt(schemeBlues, 5) },
  lake: { words: 'straw to lake blue', colors: itemAt(schemeYlGnBu, 5) },
  greens: { words: 'pale to deep green', colors: itemAt(schemeGreens, 5) },
  embers: { words: 'sand to ember red', colors: itemAt(schemeOrRd, 5) },
  purples: { words: 'pale to deep purple', colors: itemAt(schemePurples, 5) },
  shore: { words: 'earth, white, sea green', colors: itemAt(schemeBrBG, 5) },
  dusk: { words: 'orange, white, purple', colors: itemAt(schemePuOr, 5) },
  'warm-cold': { words: 'red, straw, blue', colors: itemAt(schemeRdYlBu, 5) },
} as const satisfies Record<string, { words: string; colors: readonly string[] }>;

export type SchemeName = keyof typeof SCHEMES;
