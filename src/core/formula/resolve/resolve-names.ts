import { labelIndex } from '../../sheet/label-index';
import { FUNCTIONS } from '../functions/function-table';
import { parseFormula } from '../syntax/parse-formula';
import { partsOf, type Diagnostic, type FormulaNode, type NodeOf } from '../syntax/formula-tree';
import type { FormulaContext } from '../values/place';

/** Whether one value is wanted or cells: a label stands for the cell of the record, or for the whole field. */
type WantedShape = 'value' | 'cells';

export interface ResolvedNames {
  readonly tree: FormulaNode;
  readonly diagnostics: readonly Diagnostic[];
}

/** The names that can be resolved. */
export type NameContext = Pick<FormulaContext, 'sheet' | 'findName'>;

/** All names of a tree. */
export const namesOf = (tree: FormulaNode): NodeOf<'name'>[] =>
  tree.kind === 'name' ? [tree] : partsOf(tree).flatMap(namesOf);

/** Replaces names by references: a named range, else the field with that label. Other names are reported. */
export function resolveNames(tree: FormulaNode, context: NameContext): ResolvedNames {
  const diagnostics: Diagnostic[] = [];
  const resolve = (node: FormulaNode, wanted: WantedShape): FormulaNode => {
    switch (node.kind) {
      case 'name': {
        const found = referenceOf(node, wanted, context);
        if (!found) diagnostics.push({ code: 'unknown-name', from: node.from, to: node.to, message: unknown(node) });
        return found ?? node;
      }
      case 'prefix':
      case 'percent':
        return { ...node, operand: resolve(node.operand, wanted) };
      case 'group':
        return { ...node, inner: resolve(node.inner, wanted) };
      case 'binary': {
        const inside = node.operator === ':' || node.operator === '!' || node.operator === '~' ? 'cells' : wanted;
        return { ...node, left: resolve(node.left, inside), right: resolve(node.right, inside) };
      }
      case 'call': {
        const parameters = FUNCTIONS.get(node.name)?.parameters ?? [];
        return {
          ...node,
          args: node.args.map((arg, at) =>
            resolve(arg, wantedBy(parameters[Math.min(at, parameters.length - 1)], wanted)),
          ),
        };
      }
      default:
        return node;
    }
  };
  return { tree: resolve(tree, 'value'), diagnostics };
}

function wantedBy(parameter: { readonly takes: string } | undefined, outside: WantedShape): WantedShape {
  if (parameter?.takes === 'cells' || parameter?.takes === 'array') return 'cells';
  return parameter?.takes === 'later' ? outside : 'value';
}

function referenceOf(
  { name, from, to }: NodeOf<'name'>,
  wanted: WantedShape,
  context: NameContext,
): FormulaNode | undefined {
  const named = context.findName(name);
  if (named !== undefined) {
    const { tree, diagnostics } = parseFormula(named);
    return diagnostics.length || tree.kind !== 'reference' ? undefined : { ...tree, from, to };
  }
  const field = labelIndex(context.sheet)(name);
  if (field === undefined) return undefined;
  return {
    kind: 'reference',
    sheet: null,
    ends: [{ field: { id: field, absolute: false }, row: wanted === 'value' ? 'same' : 'records' }],
    from,
    to,
  };
}

const unknown = ({ name, from }: NodeOf<'name'>): string =>
  `there is no field or named range "${name}" (character ${from + 1})`;
