import type { KeyOutcome } from '../../core/rules/kinds/key';

/** What the outcomes of an answer key are called. */
export const OUTCOME_WORDS: Record<KeyOutcome, string> = {
  empty: 'Not yet answered',
  right: 'Right',
  near: 'Nearly right',
  wrong: 'Wrong',
};
