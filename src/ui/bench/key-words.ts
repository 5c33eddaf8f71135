import type { KeyOutcome } from '../../core/rules/kinds/key';

/** The names of an answer key's outcomes. */
export const OUTCOME_WORDS: Record<KeyOutcome, string> = {
  empty: 'Not yet answered',
  right: 'Right',
  near: 'Nearly right',
  wrong: 'Wrong',
};
