import { itemAt } from '../../core/values/item-at';
import type { Theme } from '../../core/looks/first-family';

/** Colours of the chrome. The data's colours are the rules' own (see core/looks). */
export interface Tokens {
  readonly paper: string;
  readonly sheet: string;
  readonly ink: string;
  readonly inkSecond: string;
  readonly hairline: string;
  readonly line: string;
  readonly marigold: string;
  readonly accentInk: string;
  readonly selection: string;
  readonly selectionTint: string;
  readonly head: string;
  /** Every other record, where they are shaded. */
  readonly band: string;
  /** The mistake, in words. */
  readonly error: string;
  /** References of a formula, each with its cells; one after another, all readable as text. */
  readonly references: readonly string[];
  /** Of icons that judge. Their shapes differ too. */
  readonly tones: { readonly bad: string; readonly doubtful: string; readonly good: string };
}

export const TOKENS: Readonly<Record<Theme, Tokens>> = {
  light: {
    paper: '#fbf8f2',
    sheet: '#fffefb',
    ink: '#22252b',
    inkSecond: '#5a5f69',
    hairline: '#e6e0d5',
    line: '#c9c1b2',
    marigold: '#e8a317',
    accentInk: '#86560a',
    selection: '#3d4a94',
    selectionTint: 'rgba(61, 74, 148, 0.08)',
    head: '#f4efe5',
    band: '#f8f4ea',
    error: '#a3301a',
    references: ['#1f5fa8', '#8a4b08', '#0b6b52', '#8c2f6b', '#5b4fb0', '#5d6412'],
    tones: { bad: '#a3301a', doubtful: '#86560a', good: '#0b6b52' },
  },
  dark: {
    paper: '#191b20',
    sheet: '#1f2127',
    ink: '#eceae4',
    inkSecond: '#a9adb6',
    hairline: '#34373f',
    line: '#4a4e58',
    marigold: '#f2b84b',
    accentInk: '#f5cf86',
    selection: '#9aa6f0',
    selectionTint: 'rgba(154, 166, 240, 0.12)',
    head: '#24272e',
    band: '#25282f',
    error: '#f2a38f',
    references: ['#8fc1f5', '#f0b27a', '#7fd3b6', '#eaa3cf', '#b9b0f5', '#cdd37a'],
    tones: { bad: '#f2a38f', doubtful: '#f2b84b', good: '#7fd3b6' },
  },
};

export const CELL_FONT = "'Hanken Grotesk Variable', sans-serif";
/** Font families for ordinary formatting; all have figures of one width, or are set so. */
export const CELL_FONTS = {
  plain: CELL_FONT,
  serif: "'Newsreader Variable', serif",
  fixed: "'Atkinson Hyperlegible Mono', monospace",
} as const;

/** The colour of somebody else's selection, by their place among those who are there. */
export const colorOfPerson = (theme: Theme, place: number): string =>
  itemAt(TOKENS[theme].references, place % TOKENS[theme].references.length);

/** The tokens as custom properties: --paper, --ink-second, --references-0 and so on. */
export const tokenVariables = (theme: Theme): Record<string, string> =>
  Object.fromEntries(
    Object.entries(TOKENS[theme]).flatMap(([name, value]: [string, string | object]) => {
      const variable = `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;
      return typeof value === 'string'
        ? [[variable, value]]
        : Object.entries(value).map(([part, color]) => [`${variable}-${part}`, color as string]);
    }),
  );
