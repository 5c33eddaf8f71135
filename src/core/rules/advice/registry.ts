import { keysOf } from '../../values/typed-keys';
import type { Advice, Adviser, AdviceContext } from './advice';
import { alikeForColourBlind, colourOnly, tooManyColours } from './colours';
import { endsEarly } from './ends-early';
import { failingTrial } from './failing-trial';
import { shiftedFormula, unanchored } from './formula-anchors';
import { formulaErrors } from './formula-errors';
import { gap } from './gap';
import { headerRead } from './header-read';
import { lowContrast } from './low-contrast';
import { allMatch, noMatch } from './match-counts';
import { missingFieldAdvice } from './missing-field';
import { neverSeen } from './never-seen';
import { numbersAsText } from './numbers-as-text';
import { overlap } from './overlap';
import { sameRule } from './same-rule';
import { scaleMisfit } from './scale-misfit';

/** Every code of advice, in order: what stops a rule first, matters of taste last. */
export const ADVISERS = {
  'missing-field': missingFieldAdvice,
  'failing-trial': failingTrial,
  'never-seen': neverSeen,
  'same-rule': sameRule,
  'scale-misfit': scaleMisfit,
  'numbers-as-text': numbersAsText,
  'header-read': headerRead,
  'shifted-formula': shiftedFormula,
  unanchored,
  'formula-errors': formulaErrors,
  'ends-early': endsEarly,
  gap,
  overlap,
  'no-match': noMatch,
  'all-match': allMatch,
  'low-contrast': lowContrast,
  'alike-for-colour-blind': alikeForColourBlind,
  'colour-only': colourOnly,
  'too-many-colours': tooManyColours,
} as const satisfies Record<string, Adviser>;

/** Advice on the active rules of a sheet. */
export const advise = (context: AdviceContext): Advice[] => keysOf(ADVISERS).flatMap((code) => adviseOn(code, context));

export type AdviceCode = keyof typeof ADVISERS;

/**
 * The advice of a single adviser: with very many records, one after another leaves room for other work between them.
 */
export const adviseOn = (code: AdviceCode, context: AdviceContext): Advice[] =>
  ADVISERS[code](context).map((advice) => ({ code, ...advice }));
