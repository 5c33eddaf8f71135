import { FUNCTIONS, takes } from './functions/function-table';
import type { FunctionSpec, Parameter } from './functions/function-spec';
import { power } from './functions/mathematics';
import { arithmetic, compared, type Dyadic } from './operators';
import { Area, AreaList, FormulaError, Matrix, finite, isScalar, toNumber, toText, type Operand, type Scalar } from './formula-value';
import type { BinaryOperator, FormulaNode, NodeOf, ReferenceNode } from './formula-tree';
import type { BoundReference } from './bind-reference';
import type { Place } from './place';
import { toMatrix, toScalar } from './read-cells';

/** A part of a formula made ready to run at any place. */
interface Runner {
  run(place: Place): Operand;
  /** The value as a plain number, NaN where it is anything else: the quick way, which makes no objects. */
  readonly number?: (place: Place) => number;
  /** 1 for true, 0 for false, -1 where the value is no plain logical. */
  readonly test?: (place: Place) => number;
}

export interface CompiledFormula {
  run(place: Place): Operand;
  readonly number: ((place: Place) => number) | undefined;
  readonly test: ((place: Place) => number) | undefined;
  readonly hangsOn: ReadonlySet<'clock' | 'cells'>;
}

/**
 * Turns a tree into closures, once for all formulas of the same shape: they find their references in the place. What a
 * name stands for must have been put in before (see resolve-names.ts); names that are left are `#NAME?`.
 */
export function compileFormula(tree: FormulaNode): CompiledFormula {
  const compiler = new Compiler();
  const { run, number, test } = compiler.compile(tree, 'one');
  return { run, number, test, hangsOn: compiler.hangsOn };
}

/** Whether an expression over several values gives one value or an array of them. */
type Mode = 'one' | 'array';

const constant = (value: Scalar): Runner => ({
  run: () => value,
  ...(typeof value === 'number' ? { number: () => value } : {}),
  ...(typeof value === 'boolean' ? { test: () => Number(value) } : {}),
});

class Compiler {
  readonly hangsOn = new Set<'clock' | 'cells'>();
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
    };
  }

  private array({ rows }: NodeOf<'array'>): Runner {
    const value = new Matrix(
      rows.length,
      rows[0]!.length,
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
    const { number } = inner;
    return {
      run: mode === 'one' ? (place) => one(toScalar(inner.run(place), place)) : (place) => mapped(inner.run(place), place, one),
      ...(number
        ? {
            number: (place) => {
              const result = compute(number(place));
              return typeof result === 'number' ? result : NaN;
            },
          }
        : {}),
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
    const one = (place: Place) => dyadic(toScalar(left.run(place), place), toScalar(right.run(place), place));
    const slow = mode === 'one' ? one : (place: Place) => mappedPair(left.run(place), right.run(place), { place, dyadic });
    if (!left.number || !right.number || mode === 'array') return { run: slow };
    const { number: a } = left;
    const { number: b } = right;
    const compute = QUICK[operator];
    if (compute) return { run: slow, number: quickArithmetic(a, b, compute) };
    const holds = QUICK_TESTS[operator];
    if (!holds) return { run: slow };
    return { run: slow, test: quickTest({ a, b, holds, slow: one }) };
  }

  /** A call that cannot be made (see check-calls.ts) gives an error, and its arguments count among the references all the same. */
  private call(node: NodeOf<'call'>, mode: Mode): Runner {
    const spec = FUNCTIONS.get(node.name);
    if (spec && takes(spec, node.args.length)) {
      if (spec.hangsOn) this.hangsOn.add(spec.hangsOn);
      return this.known(node, spec, mode);
    }
    for (const arg of node.args) this.compile(arg, 'one');
    return constant(spec ? FormulaError.value : FormulaError.name);
  }

  private known(node: NodeOf<'call'>, spec: FunctionSpec, mode: Mode): Runner {
    const args = node.args.map((arg, at): Argument => {
      const parameter = spec.parameters[Math.min(at, spec.parameters.length - 1)]!;
      // Within an array, functions of single values are taken one value at a time.
      const inner = parameter.takes === 'array' || (mode === 'array' && parameter.takes === 'value') ? 'array' : 'one';
      return { ...this.compile(arg, inner), parameter, isMissing: arg.kind === 'missing' };
    });
    const run = (place: Place) => call(spec, args, place);
    const test = quickLogic(node.name, args);
    if (test) return { run, test: (place) => orSlow(test(place), place, run) };
    const maps = mode === 'array' && args.some(({ parameter }) => parameter.takes === 'value');
    return { run: maps ? (place) => callMapped(spec, args, place) : run };
  }
}

/** The value of a constant in an inline array, which may have a sign. */
function constantOf(node: FormulaNode): Scalar {
  if (node.kind === 'prefix') return (node.operator === '-' ? -1 : 1) * (constantOf(node.operand) as number);
  if (node.kind === 'error') return FormulaError.of(node.word);
  return node.kind === 'number' || node.kind === 'text' || node.kind === 'logical' ? node.value : null;
}

type Argument = Runner & { readonly parameter: Parameter<unknown>; readonly isMissing: boolean };

/** The number in a single cell of the formula's own sheet; NaN for anything else. */
function plainNumber(reference: BoundReference, place: Place): number {
  const { cell } = reference;
  if (!cell?.store) return otherNumber(reference.scalarAt(place));
  const slot = cell.slotAt(place);
  return cell.store.tags[slot] === 1 ? cell.store.numbers[slot]! : NaN;
}

const otherNumber = (value: Scalar): number => (typeof value === 'number' ? value : NaN);

const QUICK: Partial<Record<BinaryOperator, (a: number, b: number) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
};

const QUICK_TESTS: Partial<Record<BinaryOperator, (a: number, b: number) => boolean>> = {
  '=': (a, b) => a === b,
  '<>': (a, b) => a !== b,
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
};

function quickArithmetic(a: (place: Place) => number, b: (place: Place) => number, compute: (a: number, b: number) => number) {
  return (place: Place): number => {
    const result = compute(a(place), b(place));
    // Infinity is an error of the slow way.
    return result - result === 0 ? result : NaN;
  };
}

interface QuickComparison {
  readonly a: (place: Place) => number;
  readonly b: (place: Place) => number;
  readonly holds: (a: number, b: number) => boolean;
  readonly slow: (place: Place) => Scalar;
}

function quickTest({ a, b, holds, slow }: QuickComparison) {
  return (place: Place): number => {
    const [x, y] = [a(place), b(place)];
    if (x === x && y === y) return holds(x, y) ? 1 : 0;
    const value = slow(place);
    return typeof value === 'boolean' ? Number(value) : -1;
  };
}

/** AND, OR and NOT over tests, where every one of them is a plain logical. */
function quickLogic(name: string, args: readonly Argument[]): ((place: Place) => number) | undefined {
  const tests = args.flatMap(({ test }) => test ?? []);
  if (tests.length === 0 || tests.length < args.length) return undefined;
  if (name === 'NOT') return (place) => flipped(tests[0]!(place));
  if (name !== 'AND' && name !== 'OR') return undefined;
  const deciding = name === 'OR' ? 1 : 0;
  return (place) => {
    let result = 1 - deciding;
    for (let at = 0; at < tests.length; at++) {
      const held = tests[at]!(place);
      if (held < 0) return -1;
      if (held === deciding) result = deciding;
    }
    return result;
  };
}

const flipped = (held: number): number => (held < 0 ? -1 : 1 - held);

function orSlow(held: number, place: Place, run: (place: Place) => Operand): number {
  if (held >= 0) return held;
  const value = run(place);
  return typeof value === 'boolean' ? Number(value) : -1;
}

/** Calls a function with its arguments read by its parameters. */
function call(spec: FunctionSpec, args: readonly Argument[], place: Place): Operand {
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

function readArgument({ parameter, run }: Argument, place: Place): unknown {
  return parameter.read(parameter.takes === 'later' ? () => run(place) : run(place), place);
}

/** Calls a function of single values for each value of the arrays among its arguments. */
function callMapped(spec: FunctionSpec, args: readonly Argument[], place: Place): Operand {
  const operands = args.map(({ run, parameter }) => (parameter.takes === 'value' ? asArray(run(place), place) : null));
  const shapes = operands.filter((operand) => operand instanceof Matrix);
  if (shapes.length === 0) return call(spec, args, place);
  const rows = Math.max(...shapes.map((shape) => shape.rows));
  const columns = Math.max(...shapes.map((shape) => shape.columns));
  const values: Scalar[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const single = args.map((arg, at) => (operands[at] === null ? arg : { ...arg, run: () => elementOf(operands[at]!, row, column) }));
      values.push(toScalar(call(spec, single, place), place));
    }
  return new Matrix(rows, columns, values);
}

/** Arrays and areas of several cells as a matrix, single values as they are. */
function asArray(operand: Operand, place: Place): Scalar | Matrix {
  if (isScalar(operand)) return operand;
  const array = toMatrix(operand, place);
  return array instanceof Matrix && array.values.length === 1 ? array.values[0]! : array;
}

/** The element of an array, where one row or column stands for all. */
function elementOf(operand: Scalar | Matrix, row: number, column: number): Scalar {
  if (!(operand instanceof Matrix)) return operand;
  const [r, c] = [operand.rows === 1 ? 0 : row, operand.columns === 1 ? 0 : column];
  return r < operand.rows && c < operand.columns ? operand.values[r * operand.columns + c]! : FormulaError.na;
}

function mapped(operand: Operand, place: Place, compute: (value: Scalar) => Scalar): Operand {
  const array = asArray(operand, place);
  return array instanceof Matrix ? new Matrix(array.rows, array.columns, array.values.map(compute)) : compute(array);
}

function mappedPair(left: Operand, right: Operand, { place, dyadic }: { place: Place; dyadic: Dyadic }): Operand {
  const [a, b] = [asArray(left, place), asArray(right, place)];
  if (!(a instanceof Matrix) && !(b instanceof Matrix)) return dyadic(a, b);
  const shapes = [a, b].filter((operand) => operand instanceof Matrix);
  const rows = Math.max(...shapes.map((shape) => shape.rows));
  const columns = Math.max(...shapes.map((shape) => shape.columns));
  const values: Scalar[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) values.push(dyadic(elementOf(a, row, column), elementOf(b, row, column)));
  return new Matrix(rows, columns, values);
}

function joined(left: Operand, right: Operand, join: (a: Area, b: Area) => Area | AreaList | FormulaError): Operand {
  const [a, b] = [left, right].map((operand) => (operand instanceof AreaList ? operand.areas : operand));
  if (a instanceof FormulaError) return a;
  if (b instanceof FormulaError) return b;
  if (join === united) {
    const areas = [a, b].flatMap((side) => (side instanceof Area ? side : Array.isArray(side) ? (side as Area[]) : []));
    return areas.length > 1 ? new AreaList(areas) : FormulaError.value;
  }
  return a instanceof Area && b instanceof Area && a.sheet === b.sheet ? join(a, b) : FormulaError.value;
}

const spanned = (a: Area, b: Area): Area =>
  new Area(a.sheet, {
    left: Math.min(a.left, b.left),
    top: Math.min(a.top, b.top),
    right: Math.max(a.right, b.right),
    bottom: Math.max(a.bottom, b.bottom),
  });

const united = (a: Area, b: Area): AreaList => new AreaList([a, b]);

function intersected(a: Area, b: Area): Area | FormulaError {
  const [left, right] = [Math.max(a.left, b.left), Math.min(a.right, b.right)];
  const [top, bottom] = [Math.max(a.top, b.top), Math.min(a.bottom, b.bottom)];
  return left > right || top > bottom ? FormulaError.empty : new Area(a.sheet, { left, top, right, bottom });
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
