import { useComputedColorScheme } from '@mantine/core';
import { TOKENS, type Tokens } from './tokens';

/** The colours of the scheme that is on. */
export const useTokens = (): Tokens => TOKENS[useComputedColorScheme('light', { getInitialValueInEffect: false })];
