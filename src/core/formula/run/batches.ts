import { TAG } from '../../values/cell-value';
import type { BoundCell, EvalCursor } from '../values/place';
import type { BinaryOperator } from '../syntax/formula-tree';

/*
 * Formulas over many rows at once: each part runs over a batch before the next one begins, so that the loops are tight
 * and nothing is boxed. Only for parts that read plain numbers, or single cells against a text; like the quick ways for
 * one row they give NaN, or -1, for rows that must go the slow way.
 */

/** Rows to a batch. */
export const BATCH = 1024;

/** Some slots one after another. */
export interface Batch {
  readonly place: EvalCursor;
  first: number;
  count: number;
}

export type NumberBatch = (batch: Batch, out: Float64Array) => void;
export type TestBatch = (batch: Batch, out: Int8Array) => void;

export const constantBatch =
  (value: number): NumberBatch =>
  ({ count }, out) =>
    out.fill(value, 0, count);

/** The number in the cell of a reference, beside each row. */
export function cellBatch(at: number): NumberBatch {
  return (batch, out) => {
    const { place, first, count } = batch;
    const { cell } = place.refs[at]!;
    const numbers = out.subarray(0, count);
    if (!cell?.store) numbers.fill(NaN);
    else if (cell.row === 'same') copyNumbers(cell.store, first, numbers);
    else {
      const { store } = cell;
      const numberIn = (slot: number): number => (store.tags[slot] === TAG.number ? store.numbers[slot]! : NaN);
      if (cell.row === 'fixed') numbers.fill(numberIn(cell.slotAt(place)));
      else forEachSlot(batch, cell, (slot, row) => (numbers[row] = numberIn(slot)));
    }
  };
}

/** Visits the slot of a cell that moves along with each row of a batch. */
export function forEachSlot(
  { place, first, count }: Batch,
  cell: BoundCell,
  visit: (slot: number, row: number) => void,
): void {
  for (let row = 0; row < count; row++) {
    place.slot = first + row;
    place.position = -1;
    visit(cell.slotAt(place), row);
  }
}

function copyNumbers(
  { numbers, tags, hasDates }: { numbers: Float64Array; tags: Uint8Array; hasDates: boolean },
  first: number,
  out: Float64Array,
): void {
  out.set(numbers.subarray(first, first + out.length));
  if (hasDates) for (let at = 0; at < out.length; at++) if (tags[first + at] !== TAG.number) out[at] = NaN;
}

type Operation = (x: Float64Array, y: Float64Array, out: Float64Array) => void;

/** Infinity is an error of the slow way, so it becomes NaN. Without a branch: half the time of one. */
const finiteOrNaN = (value: number): number => value - (value - value);

/** Each operator has a loop of its own. */
const OPERATIONS: Partial<Record<BinaryOperator, Operation>> = {
  '+': (x, y, out) => {
    for (let at = 0; at < out.length; at++) out[at] = finiteOrNaN(x[at]! + y[at]!);
  },
  '-': (x, y, out) => {
    for (let at = 0; at < out.length; at++) out[at] = finiteOrNaN(x[at]! - y[at]!);
  },
  '*': (x, y, out) => {
    for (let at = 0; at < out.length; at++) out[at] = finiteOrNaN(x[at]! * y[at]!);
  },
  '/': (x, y, out) => {
    for (let at = 0; at < out.length; at++) out[at] = finiteOrNaN(x[at]! / y[at]!);
  },
};

export function arithmeticBatch(operator: BinaryOperator, a: NumberBatch, b: NumberBatch): NumberBatch | undefined {
  const operation = OPERATIONS[operator];
  if (!operation) return undefined;
  const sides = operands(a, b);
  return (batch, out) => {
    const { x, y } = sides(batch);
    operation(x, y, out.subarray(0, batch.count));
  };
}

type Comparison = (x: Float64Array, y: Float64Array, out: Int8Array) => void;

/**
 * 1, 0 and -1 from a comparison and its opposite, of which neither holds where a side is no number. Without a branch.
 */
const judged = (holds: boolean, fails: boolean): number => 2 * Number(holds) + Number(fails) - 1;

const COMPARISONS: Partial<Record<BinaryOperator, Comparison>> = {
  '=': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a === b, a < b || a > b);
    }
  },
  '<>': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a < b || a > b, a === b);
    }
  },
  '<': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a < b, a >= b);
    }
  },
  '<=': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a <= b, a > b);
    }
  },
  '>': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a > b, a <= b);
    }
  },
  '>=': (x, y, out) => {
    for (let at = 0; at < out.length; at++) {
      const a = x[at]!;
      const b = y[at]!;
      out[at] = judged(a >= b, a < b);
    }
  },
};

export function comparisonBatch(operator: BinaryOperator, a: NumberBatch, b: NumberBatch): TestBatch | undefined {
  const comparison = COMPARISONS[operator];
  if (!comparison) return undefined;
  const sides = operands(a, b);
  return (batch, out) => {
    const { x, y } = sides(batch);
    comparison(x, y, out.subarray(0, batch.count));
  };
}

/** AND (deciding 0) or OR (deciding 1) of tests; -1, which has all bits set, where one of them is an error. */
export function logicBatch(tests: readonly TestBatch[], deciding: 0 | 1): TestBatch {
  const part = new Int8Array(BATCH);
  const combine = deciding === 1 ? either : both;
  return (batch, out) => {
    tests[0]!(batch, out);
    for (let next = 1; next < tests.length; next++) {
      tests[next]!(batch, part);
      combine(out, part, batch.count);
    }
  };
}

function either(out: Int8Array, other: Int8Array, count: number): void {
  for (let at = 0; at < count; at++) out[at]! |= other[at]!;
}

function both(out: Int8Array, other: Int8Array, count: number): void {
  for (let at = 0; at < count; at++) {
    const [a, b] = [out[at]!, other[at]!];
    out[at] = (a & b) | (a >> 7) | (b >> 7);
  }
}

export const notBatch =
  (test: TestBatch): TestBatch =>
  (batch, out) => {
    test(batch, out);
    for (let at = 0; at < batch.count; at++) if (out[at]! >= 0) out[at] = 1 - out[at]!;
  };

export const mapBatch =
  (inner: NumberBatch, compute: (value: number) => number): NumberBatch =>
  (batch, out) => {
    inner(batch, out);
    for (let at = 0; at < batch.count; at++) out[at] = compute(out[at]!);
  };

/** Runs two parts into arrays of their own, of the batch's length. */
function operands(a: NumberBatch, b: NumberBatch): (batch: Batch) => { x: Float64Array; y: Float64Array } {
  const [x, y] = [new Float64Array(BATCH), new Float64Array(BATCH)];
  return (batch) => {
    a(batch, x);
    b(batch, y);
    return batch.count === BATCH ? { x, y } : { x: x.subarray(0, batch.count), y: y.subarray(0, batch.count) };
  };
}
