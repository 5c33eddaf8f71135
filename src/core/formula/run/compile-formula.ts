import { itemAt } from '../../values/item-at';
import {
  arithmeticBatch,
  cellBatch,
  comparisonBatch,
  constantBatch,
  loneCellBatch,
  logicBatch,
  mapBatch,
  notBatch,
  type NumberBatch,
  type TestBatch,
} from './batches';
import { FUNCTIONS, takes } from '../functions/function-table';
import type { FunctionSpec, Parameter } from '../functions/function-spec';
import { power } from '../functions/mathematics';
import { arithmetic, compared, type Dyadic } from './operators';
import { FormulaError, Matrix, finite, toNumber, toText, type Operand, type Scalar } from '../values/formula-value';
import { isKept, type BinaryOperator, type FormulaNode, type NodeOf, type ReferenceNode } from '../syntax/formula-tree';
import { intersected, joined, spanned, united } from './join-areas';
import { asArray, elementOf, mapped, mappedPair } from './map-arrays';
import { spendAgain, spendMade, spendText, type EvalCursor } from '../values/place';
import {
  ERROR,
  plainNumber,
  QUICK_ARITHMETIC,
  QUICK_COMPARISON,
  quickLogic,
  TextEquality,
  type QuickNumber,
  type QuickTest,
} from './quick-runners';
import { toScalar } from '../values/read-cells';

/** A compiled part of a formula, to run at any cursor. */
interface Runner {
  run(place: EvalCursor): Operand;
  readonly number?: QuickNumber;
  readonly test?: QuickTest;
  readonly numbers?: NumberBatch | undefined;
  /** The value of a single cell, without an area of one cell. */
  readonly scalar?: (place: EvalCursor) => Scalar;
  readonly tests?: TestBatch | undefined;
}

export interface CompiledFormula {
  run(place: EvalCursor): Operand;
  readonly test: QuickTest | undefined;
  /** The same for many rows at once. */
  readonly numbers: NumberBatch | undefined;
  readonly tests: TestBatch | undefined;
  readonly volatile: ReadonlySet<'clock' | 'cells'>;
}

/**
 * Turns a tree into closures, once for all formulas of the same shape: they find their references in the place. What a
 * name stands for must have been put in before (see resolve-names.ts); names that are left are `#NAME?`.
 */
export function compileFormula(tree: FormulaNode): CompiledFormula {
  const compiler = new Compiler();
  const { run, test, numbers, tests } = compiler.compile(tree, 'one');
  // A cell by itself stays blank, where as an operand it would be 0.
  const results = isLoneCell(tree) ? loneCellBatch(0) : numbers;
  return { run, test, numbers: results, tests, volatile: compiler.volatile };
}

/** Whether a formula is nothing but one cell. */
function isLoneCell(tree: FormulaNode): boolean {
  if (tree.kind === 'group') return isLoneCell(tree.inner);
  if (tree.kind === 'prefix' && tree.operator === '+') return isLoneCell(tree.operand);
  return tree.kind === 'reference' && isCell(tree);
}

/** Whether an expression over several values gives one value or an array of them. */
type Mode = 'one' | 'array';

const constant = (value: Scalar): Runner => ({
  run: () => value,
  ...(typeof value === 'number' ? { number: () => value, numbers: constantBatch(value) } : {}),
  ...(typeof value === 'boolean' ? { test: () => Number(value) } : {}),
});

class Compiler {
  readonly volatile = new Set<'clock' | 'cells'>();
  private references = 0;

  compile(node: FormulaNode, mode: Mode): Runner {
    switch (node.kind) {
      case 'number':
      case 'text':
      case 'logical':
        return constant(node.value);
      case 'error':
        return constant(FormulaError.of(node.word));
      case 'missing':
        return constant(null);
      case 'name':
        return constant(FormulaError.name);
      case 'reference':
        return this.reference(node);
      case 'array':
        return this.array(node);
      case 'group':
        return this.compile(node.inner, mode);
      case 'prefix':
        return this.prefix(node, mode);
      case 'percent':
        return this.numeric(this.compile(node.operand, mode), mode, (value) => finite(value / 100));
      case 'binary':
        return this.binary(node, mode);
      case 'call':
        return this.call(node, mode);
    }
  }

  private reference(node: ReferenceNode): Runner {
    const at = this.references++;
    if (node.ends.length > 1) return { run: (place) => place.refs[at]!.areaAt(place) };
    return {
      run: (place) => place.refs[at]!.areaAt(place),
      number: (place) => plainNumber(place.refs[at]!, place),
      numbers: cellBatch(at),
      scalar: (place) => place.refs[at]!.scalarAt(place),
    };
  }

  private array({ rows }: NodeOf<'array'>): Runner {
    const value = new Matrix(
      rows.length,
      itemAt(rows, 0).length,
      rows.flatMap((row) => row.map(constantOf)),
    );
    return { run: () => value };
  }

  private prefix({ operator, operand }: NodeOf<'prefix'>, mode: Mode): Runner {
    const inner = this.compile(operand, mode);
    return operator === '+' ? inner : this.numeric(inner, mode, (value) => -value);
  }

  /** A function of one number. */
  private numeric(inner: Runner, mode: Mode, compute: (value: number) => number | FormulaError): Runner {
    const one = (value: Scalar): Scalar => {
      const converted = toNumber(value);
      return typeof converted === 'number' ? compute(converted) : converted;
    };
    const { number, numbers } = inner;
    const plain = (value: number): number => {
      const result = compute(value);
      return typeof result === 'number' ? result : NaN;
    };
    return {
      run:
        mode === 'one'
          ? (place) => one(toScalar(inner.run(place), place))
          : (place) => mapped(inner.run(place), place, one),
      ...(number ? { number: (place: EvalCursor) => plain(number(place)) } : {}),
      numbers: numbers && mapBatch(numbers, plain),
    };
  }

  private binary(node: NodeOf<'binary'>, mode: Mode): Runner {
    const { operator } = node;
    if (operator === ':' || operator === '!' || operator === '~') {
      const [left, right] = [this.compile(node.left, 'one'), this.compile(node.right, 'one')];
      const join = { ':': spanned, '!': intersected, '~': united }[operator];
      return { run: (place) => joined(left.run(place), right.run(place), join) };
    }
    const [left, right] = [this.compile(node.left, mode), this.compile(node.right, mode)];
    const dyadic = DYADIC[operator];
    const one = (place: EvalCursor) => {
      const a = scalarOf(left, place);
      const b = scalarOf(right, place);
      spendText(place, a);
      spendText(place, b);
      return dyadic(a, b);
    };
    const slow =
      mode === 'one' ? one : (place: EvalCursor) => mappedPair(left.run(place), right.run(place), { place, dyadic });
    if (mode === 'array') return { run: slow };
    const test = this.quickTest(node, left, right);
    if (test) return { run: slow, test: (place) => orSlow(test.one(place), place, one), tests: test.many };
    const quick = left.number && right.number && QUICK_ARITHMETIC[operator]?.(left.number, right.number);
    if (!quick) return { run: slow };
    return {
      run: slow,
      number: quick,
      numbers: left.numbers && right.numbers && arithmeticBatch(operator, left.numbers, right.numbers),
    };
  }

  /** A comparison for one row and for many, where there is a quick way. */
  private quickTest(
    { operator, left: one, right: other }: NodeOf<'binary'>,
    left: Runner,
    right: Runner,
  ): { one: QuickTest; many: TestBatch | undefined } | undefined {
    const isEquality = operator === '=' || operator === '<>';
    if (isEquality && one.kind === 'reference' && one.ends.length === 1 && other.kind === 'text' && other.value !== '')
      return new TextEquality(this.references - 1, other.value, operator === '=');
    const test = left.number && right.number && QUICK_COMPARISON[operator]?.(left.number, right.number);
    return (
      test && {
        one: test,
        many: left.numbers && right.numbers && comparisonBatch(operator, left.numbers, right.numbers),
      }
    );
  }

  /**
   * A call that cannot be made (see check-calls.ts) gives an error, and its arguments count among the references all
   * the same.
   */
  private call(node: NodeOf<'call'>, mode: Mode): Runner {
    const spec = FUNCTIONS.get(node.name);
    if (spec && takes(spec, node.args.length)) {
      if (spec.volatile) this.volatile.add(spec.volatile);
      return this.known(node, spec, mode);
    }
    for (const arg of node.args) this.compile(arg, 'one');
    return constant(spec ? FormulaError.value : FormulaError.name);
  }

  private known(node: NodeOf<'call'>, spec: FunctionSpec, mode: Mode): Runner {
    const begins = this.references;
    const args = node.args.map((arg, at): Argument => {
      const parameter = itemAt(spec.parameters, Math.min(at, spec.parameters.length - 1));
      // Within an array, functions of single values are taken one value at a time.
      const inner = parameter.takes === 'array' || (mode === 'array' && parameter.takes === 'value') ? 'array' : 'one';
      return { ...this.compile(arg, inner), parameter, isMissing: arg.kind === 'missing' };
    });
    const plain = (place: EvalCursor) => call(spec, args, place);
    const run = isOnceForAll(node, spec) ? onceForAll(plain, begins, this.references) : plain;
    const tests = args.flatMap(({ test }) => test ?? []);
    const test = tests.length > 0 && tests.length === args.length ? quickLogic(node.name, tests) : undefined;
    if (test) return { run, test: (place) => orSlow(test(place), place, run), tests: logicOver(node.name, args) };
    const maps = mode === 'array' && args.some(({ parameter }) => parameter.takes === 'value');
    return { run: maps ? (place) => callMapped(spec, args, place) : run };
  }
}

/**
 * True for a call whose result is the same everywhere if its references are fixed: it takes ranges whole, and nothing
 * in it depends on where it stands.
 */
function isOnceForAll(node: NodeOf<'call'>, spec: FunctionSpec): boolean {
  const takesRange = node.args.some((arg) => isRange(arg));
  return (
    takesRange &&
    spec.volatile === undefined &&
    node.args.every((arg, at) => {
      const parameter = itemAt(spec.parameters, Math.min(at, spec.parameters.length - 1));
      return isRange(arg)
        ? parameter.takesWhole === true
        : arg.kind === 'number' || arg.kind === 'text' || arg.kind === 'logical' || isCell(arg);
    })
  );
}

const isRange = (node: FormulaNode): boolean =>
  node.kind === 'reference' &&
  (node.ends.length > 1 || node.ends.some((end) => isKept(end) && typeof end.row === 'string' && end.row !== 'same'));
const isCell = (node: FormulaNode): boolean => node.kind === 'reference' && !isRange(node);

/** Runs a call once for all cells of a formula, while no cell changes and its references are the same everywhere. */
function onceForAll(run: (place: EvalCursor) => Operand, begins: number, ends: number): (place: EvalCursor) => Operand {
  let known: { refs: EvalCursor['refs']; epoch: number; value: Operand; work: number } | undefined;
  return (place) => {
    const { refs, context } = place;
    if (known && known.refs === refs && known.epoch === context.epoch) {
      spendAgain(place, known.work);
      return known.value;
    }
    const before = place.work;
    const value = run(place);
    let isFixed = true;
    for (let at = begins; at < ends; at++) isFixed &&= refs[at]!.isFixed;
    if (isFixed && context.epoch !== undefined)
      known = { refs, epoch: context.epoch, value, work: place.work - before };
    return value;
  };
}

/** The value of a constant in an inline array, which may have a sign. */
function constantOf(node: FormulaNode): Scalar {
  if (node.kind === 'prefix') return (node.operator === '-' ? -1 : 1) * (constantOf(node.operand) as number);
  if (node.kind === 'error') return FormulaError.of(node.word);
  return node.kind === 'number' || node.kind === 'text' || node.kind === 'logical' ? node.value : null;
}

type Argument = Runner & { readonly parameter: Parameter<unknown>; readonly isMissing: boolean };

const scalarOf = ({ run, scalar }: Runner, place: EvalCursor): Scalar =>
  scalar ? scalar(place) : toScalar(run(place), place);

/** AND, OR and NOT over batches. */
function logicOver(name: string, args: readonly Argument[]): TestBatch | undefined {
  const batches = args.flatMap(({ tests }) => tests ?? []);
  if (batches.length < args.length) return undefined;
  return name === 'NOT' ? notBatch(batches[0]!) : logicBatch(batches, name === 'OR' ? 'or' : 'and');
}

/** The quick answer, or the slow one where there is none. */
function orSlow(held: number, place: EvalCursor, run: (place: EvalCursor) => Operand): number {
  if (held >= 0) return held;
  const value = run(place);
  return typeof value === 'boolean' ? Number(value) : value instanceof FormulaError ? ERROR : -1;
}

/** Calls a function with its arguments read by its parameters. */
function call(spec: FunctionSpec, args: readonly Argument[], place: EvalCursor): Operand {
  const { parameters } = spec;
  const values: unknown[] = new Array<unknown>(parameters.length);
  for (let at = 0; at < parameters.length; at++) {
    const parameter = parameters[at]!;
    if (parameter.repeats) {
      const rest: unknown[] = [];
      for (let next = at; next < args.length; next++) {
        const value = readArgument(args[next]!, place);
        if (value instanceof FormulaError) return value;
        rest.push(value);
      }
      values[at] = rest;
      break;
    }
    const arg = args[at];
    const value = arg && !(arg.isMissing && parameter.absent) ? readArgument(arg, place) : parameter.absent!.value;
    if (value instanceof FormulaError) return value;
    values[at] = value;
  }
  return spec.run(values, place);
}

function readArgument({ parameter, run }: Argument, place: EvalCursor): unknown {
  return parameter.read(parameter.takes === 'later' ? () => run(place) : run(place), place);
}

/** Calls a function of single values for each value of the arrays among its arguments. */
function callMapped(spec: FunctionSpec, args: readonly Argument[], place: EvalCursor): Operand {
  const operands = args.map(({ run, parameter }) => (parameter.takes === 'value' ? asArray(run(place), place) : null));
  const shapes = operands.filter((operand) => operand instanceof Matrix);
  if (shapes.length === 0) return call(spec, args, place);
  const rows = Math.max(...shapes.map((shape) => shape.rows));
  const columns = Math.max(...shapes.map((shape) => shape.columns));
  spendMade(place, rows * columns);
  const values: Scalar[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const single = args.map((arg, at) => {
        const operand = operands[at] ?? null;
        return operand === null ? arg : { ...arg, run: () => elementOf(operand, row, column) };
      });
      values.push(toScalar(call(spec, single, place), place));
    }
  return new Matrix(rows, columns, values);
}

const DYADIC: Record<Exclude<BinaryOperator, ':' | '!' | '~'>, Dyadic> = {
  '+': arithmetic((a, b) => finite(a + b), 'dates'),
  '-': arithmetic((a, b) => finite(a - b), 'dates'),
  '*': arithmetic((a, b) => finite(a * b)),
  '/': arithmetic((a, b) => (b === 0 ? FormulaError.divideByZero : finite(a / b))),
  '^': arithmetic(power),
  '&': (left, right) => {
    const a = toText(left);
    if (typeof a !== 'string') return a;
    const b = toText(right);
    return typeof b !== 'string' ? b : a.length + b.length > 32_767 ? FormulaError.value : a + b;
  },
  '=': compared((order) => order === 0),
  '<>': compared((order) => order !== 0),
  '<': compared((order) => order < 0),
  '<=': compared((order) => order <= 0),
  '>': compared((order) => order > 0),
  '>=': compared((order) => order >= 0),
};
