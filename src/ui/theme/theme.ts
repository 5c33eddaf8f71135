import {
  createTheme,
  defaultVariantColorsResolver,
  type CSSVariablesResolver,
  type MantineColorsTuple,
} from '@mantine/core';
import { TOKENS, tokenVariables } from './tokens';

const ink: MantineColorsTuple = [
  '#f3f3f2',
  '#e4e4e3',
  '#c8c9ca',
  '#a9adb6',
  '#858a94',
  '#6b6f78',
  '#5a5f69',
  '#3b4049',
  '#2c3038',
  '#22252b',
];
const marigold: MantineColorsTuple = [
  '#fff6e2',
  '#fdeac0',
  '#fbdc97',
  '#f8cd6a',
  '#f2b84b',
  '#e8a317',
  '#c88a10',
  '#a5710c',
  '#86560a',
  '#5f3d06',
];

/** Mantine in the product's own dress: ink for actions, marigold only as a mark. */
export const theme = createTheme({
  respectReducedMotion: true,
  fontFamily: "'Hanken Grotesk Variable', sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono', monospace",
  headings: { fontFamily: "'Newsreader Variable', serif", fontWeight: '500' },
  colors: { ink, marigold },
  primaryColor: 'ink',
  primaryShade: { light: 9, dark: 1 },
  variantColorResolver: (input) =>
    input.variant === 'filled' && (input.color === undefined || input.color === 'ink')
      ? {
          background: 'var(--ink)',
          hover: 'color-mix(in srgb, var(--ink) 86%, var(--paper))',
          color: 'var(--paper)',
          border: 'none',
        }
      : defaultVariantColorsResolver(input),
  defaultRadius: 6,
  fontSizes: { xs: '12px', sm: '13px', md: '15px', lg: '18px', xl: '22px' },
  components: {
    // A link in a line of text is marked by more than its colour.
    Anchor: { defaultProps: { underline: 'always' } },
    // The first item of a menu has the focus, and nothing else is in it.
    Menu: { defaultProps: { withInitialFocusPlaceholder: false } },
    Tooltip: { defaultProps: { openDelay: 400, transitionProps: { duration: 0 } } },
  },
});

const chrome = (name: 'light' | 'dark'): Record<string, string> => ({
  ...tokenVariables(name),
  '--mantine-color-body': TOKENS[name].paper,
  '--mantine-color-text': TOKENS[name].ink,
  '--mantine-color-dimmed': TOKENS[name].inkSecond,
  '--mantine-color-default-border': TOKENS[name].line,
  '--mantine-color-default': TOKENS[name].sheet,
});

export const variables: CSSVariablesResolver = () => ({ variables: {}, light: chrome('light'), dark: chrome('dark') });
