import { checkCalls } from '../../formula/resolve/check-calls';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { referencesOf } from '../../formula/syntax/rewrite-references';

/** Why a formula of a file cannot be used here, to be read after “Formulas”; undefined where it can. */
export function unusableBecause(formula: string): string | undefined {
  const { tree, diagnostics } = parseFormula(formula);
  if (diagnostics.length) return 'that cannot be read';
  if (referencesOf(tree).some(({ sheet }) => sheet !== null)) return 'that read other sheets';
  const [call] = checkCalls(tree);
  if (!call) return undefined;
  const name = /^[\w.]+/.exec(formula.slice(call.from))?.[0].toUpperCase() ?? 'a function';
  return call.code === 'unknown-function'
    ? `with ${name}, which is not there,`
    : `with another number of arguments for ${name}`;
}
