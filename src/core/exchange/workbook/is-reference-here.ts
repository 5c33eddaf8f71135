import type { ParsedFormula } from '../../formula/syntax/parse-formula';

/** Whether a formula is one reference to cells of the same sheet: what a name can stand for. */
export const isReferenceHere = ({ tree, diagnostics }: ParsedFormula): boolean =>
  diagnostics.length === 0 && tree.kind === 'reference' && tree.sheet === null;
