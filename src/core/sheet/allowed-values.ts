import { foldText } from '../values/fold-text';
import { isFormulaInput } from '../values/is-formula-input';
import type { Field } from './field';

/** Values that a field may have a list of. */
export const MAX_ALLOWED = 500;

/**
 * Whether a field takes an input: it has no list of values, the input is one of them whatever its case, blank, or a
 * formula.
 */
export function isAllowed({ allowed }: Pick<Field, 'allowed'>, input: string): boolean {
  if (!allowed || input.trim() === '' || isFormulaInput(input)) return true;
  const folded = foldText(input.trim());
  return allowed.some((value) => foldText(value) === folded);
}
