import type { KeyOutcome } from '../../core/rules/kinds/key';

/** The names of an answer key's outcomes. */
export const OUTCOME_WORDS = {
  empty: 'notYetAnswered',
  right: 'right',
  near: 'nearlyRight',
  wrong: 'wrong',
} as const satisfies Record<KeyOutcome, string>;
