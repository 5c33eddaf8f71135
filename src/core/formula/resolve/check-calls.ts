import { arityOf, FUNCTIONS, signatureOf, takes } from '../functions/function-table';
import { partsOf, type Diagnostic, type FormulaNode } from '../syntax/formula-tree';

/** Calls of functions that do not exist, or with too few or too many arguments. */
export function checkCalls(tree: FormulaNode): Diagnostic[] {
  const inside = partsOf(tree).flatMap(checkCalls);
  if (tree.kind !== 'call') return inside;
  const { name, args, from, to } = tree;
  const spec = FUNCTIONS.get(name);
  const place = `at character ${from + 1}`;
  if (!spec)
    return [{ code: 'unknown-function', from, to, message: `there is no function ${name} ${place}` }, ...inside];
  if (takes(spec, args.length)) return inside;
  const { least, most } = arityOf(spec);
  const wanted = least === most ? String(least) : most === Infinity ? `at least ${least}` : `${least} to ${most}`;
  const message = `${signatureOf(spec)} takes ${wanted} arguments; ${args.length} given ${place}`;
  return [{ code: 'wrong-arguments', from, to, message }, ...inside];
}
