import { bindReference, type WrittenAt } from '../values/bind-reference';
import type { BoundReference, FormulaContext, EvalCursor } from '../values/place';
import { checkCalls } from '../resolve/check-calls';
import { compileFormula, type CompiledFormula } from './compile-formula';
import { FormulaError, isScalar, SerialDate, type Operand, type Scalar } from '../values/formula-value';
import type { Diagnostic, FormulaNode, ReferenceNode } from '../syntax/formula-tree';
import { parseFormula } from '../syntax/parse-formula';
import { TooMuchWork } from '../values/work-meter';
import { printFormula } from '../syntax/print-formula';
import { toScalar } from '../values/read-cells';
import { resolveNames } from '../resolve/resolve-names';
import { referencesOf } from '../syntax/rewrite-references';
import type { CellValue } from '../../values/cell-value';

/** A formula compiled for a sheet. */
export interface Formula {
  /** The tree with names put in, and its references in order of writing. */
  readonly references: readonly ReferenceNode[];
  readonly bound: readonly BoundReference[];
  readonly compiled: CompiledFormula;
  /** Its mistakes; the first one is for the person. */
  readonly diagnostics: readonly Diagnostic[];
  /** True where it cannot be read at all. */
  readonly isUnread: boolean;
}

/**
 * Formulas of one shape share one compiled form. Names of sheets and texts are part of the shape; references are not.
 */
export class FormulaShapes {
  private readonly known = new Map<string, CompiledFormula>();

  compile(tree: FormulaNode): CompiledFormula {
    const shape = printFormula(tree, { reference: (node) => (node.ends.length > 1 ? '⟦:⟧' : '⟦⟧') });
    let compiled = this.known.get(shape);
    if (!compiled) this.known.set(shape, (compiled = compileFormula(tree)));
    return compiled;
  }
}

/**
 * Reads a formula and makes it ready. `writtenAt` is the cell it was written for where it is judged for others as well.
 */
export function makeFormula(
  text: string,
  { context, shapes, writtenAt }: { context: FormulaContext; shapes: FormulaShapes; writtenAt?: WrittenAt },
): Formula {
  const parsed = parseFormula(text);
  const { tree, diagnostics } = resolveNames(parsed.tree, context);
  const compiled = shapes.compile(tree);
  const references = referencesOf(tree);
  return {
    references,
    bound: references.map((node) => bindReference(node, context, writtenAt)),
    compiled,
    diagnostics: [...parsed.diagnostics, ...checkCalls(parsed.tree), ...diagnostics],
    isUnread: parsed.diagnostics.length > 0,
  };
}

/**
 * The result of a formula at a cursor, as a scalar. Throws TooMuchWork only where the budget of everything that is
 * evaluated together is used up.
 */
export function valueAt(formula: Formula, place: EvalCursor): Scalar {
  if (formula.isUnread) return FormulaError.name;
  place.refs = formula.bound;
  place.work = 0;
  try {
    const operand: Operand = formula.compiled.run(place);
    return isScalar(operand) ? operand : toScalar(operand, place);
  } catch (error) {
    if (error instanceof TooMuchWork && error.scope === 'formula') return FormulaError.limit;
    throw error;
  }
}

/** A value of the formula language as a cell keeps it. */
export function cellValueOf(value: Scalar): CellValue {
  if (typeof value === 'number') return { kind: 'number', number: value };
  if (value === null) return { kind: 'blank' };
  if (typeof value === 'string') return { kind: 'text', text: value };
  if (typeof value === 'boolean') return { kind: 'logical', logical: value };
  return value instanceof SerialDate ? { kind: 'date', serial: value.serial } : { kind: 'error', error: value.word };
}
