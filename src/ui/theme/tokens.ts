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
  /** What is wrong, in words. */
  readonly error: string;
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
    error: '#a3301a',
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
    error: '#f2a38f',
  },
};

export const CELL_FONT = "'Hanken Grotesk Variable', sans-serif";
/** Font families for ordinary formatting; all have figures of one width, or are set so. */
export const CELL_FONTS = { plain: CELL_FONT, serif: "'Newsreader Variable', serif", fixed: "'Atkinson Hyperlegible Mono', monospace" } as const;

/** The tokens as custom properties: --paper, --ink-second and so on. */
export const tokenVariables = (theme: Theme): Record<string, string> =>
  Object.fromEntries(
    Object.entries(TOKENS[theme]).map(([name, value]) => [`--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`, value]),
  );
