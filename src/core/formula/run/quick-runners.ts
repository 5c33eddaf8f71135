import { foldCase } from '../../values/fold-text';
import { TAG } from '../../values/cell-value';
import type { Column } from '../../sheet/column';
import { forEachSlot, type TestBatch } from './batches';
import type { BoundReference, EvalCursor } from '../values/place';
import type { BinaryOperator } from '../syntax/formula-tree';

/*
 * Quick ways for the commonest parts of formulas: they read the typed arrays of columns, make no objects, and give up
 * (NaN, or -1) where a value is not plainly what they are for; the caller then goes the slow way, which knows
 * everything.
 */

/** The value as a plain number; NaN for anything else. */
export type QuickNumber = (place: EvalCursor) => number;
/** 1 for true, 0 for false, -1 where the value is no plain logical. */
export type QuickTest = (place: EvalCursor) => number;

/** The number in a single cell. */
export function plainNumber(reference: BoundReference, place: EvalCursor): number {
  const { cell } = reference;
  if (!cell?.store) {
    const value = reference.scalarAt(place);
    return typeof value === 'number' ? value : NaN;
  }
  const slot = cell.slotAt(place);
  return cell.store.tags[slot] === TAG.number ? cell.store.numbers[slot]! : NaN;
}

/** Infinity is an error of the slow way. */
const finiteOrNaN = (value: number): number => (value - value === 0 ? value : NaN);

/** Each operator has a closure of its own, so that its loop is compiled for it alone. */
export const QUICK_ARITHMETIC: Partial<Record<BinaryOperator, (a: QuickNumber, b: QuickNumber) => QuickNumber>> = {
  '+': (a, b) => (place) => finiteOrNaN(a(place) + b(place)),
  '-': (a, b) => (place) => finiteOrNaN(a(place) - b(place)),
  '*': (a, b) => (place) => finiteOrNaN(a(place) * b(place)),
  '/': (a, b) => (place) => finiteOrNaN(a(place) / b(place)),
};

/** Differences tell all comparisons: NaN where either side is no number. */
const settled = (difference: number, holds: boolean): number => (difference !== difference ? -1 : holds ? 1 : 0);

export const QUICK_COMPARISON: Partial<Record<BinaryOperator, (a: QuickNumber, b: QuickNumber) => QuickTest>> = {
  '=': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x === y);
  },
  '<>': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x !== y);
  },
  '<': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x < y);
  },
  '<=': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x <= y);
  },
  '>': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x > y);
  },
  '>=': (a, b) => (place) => {
    const x = a(place);
    const y = b(place);
    return settled(x - y, x >= y);
  },
};

/**
 * Whether the text in a single cell is a given one, case aside: found once a distinct content of the column. For one
 * row, and for many.
 */
export class TextEquality {
  private readonly wanted: string;
  private store: Column | undefined;
  /** By content code: 1, 0 or -1, and -2 for those not looked at yet. */
  private known = new Int8Array(0);

  constructor(
    /** Which reference of the formula the cell is. */
    private readonly at: number,
    text: string,
    private readonly isEqual: boolean,
  ) {
    this.wanted = foldCase(text);
  }

  /** Knowledge of the contents of a column; computed numbers, which share a code, are no texts. */
  private knownOf(store: Column): Int8Array {
    if (this.store !== store || store.entries.length > this.known.length) {
      this.store = store;
      this.known = new Int8Array(store.entries.length).fill(-2);
    }
    return this.known;
  }

  private judge(store: Column, slot: number): number {
    const code = store.valueCodeAt(slot);
    if (code === undefined) return -1;
    const known = this.knownOf(store);
    if (known[code] === -2) {
      const { value } = store.entries[code]!;
      known[code] = value.kind !== 'text' ? -1 : (foldCase(value.text) === this.wanted) === this.isEqual ? 1 : 0;
    }
    return known[code]!;
  }

  readonly one: QuickTest = (place) => {
    const cell = place.refs[this.at]!.cell;
    return cell?.store ? this.judge(cell.store, cell.slotAt(place)) : -1;
  };

  readonly many: TestBatch = (batch, out) => {
    const { place, first, count } = batch;
    const cell = place.refs[this.at]!.cell;
    const store = cell?.store;
    if (!store) out.fill(-1, 0, count);
    else if (cell.row === 'same') this.judgeRows(store, first, out.subarray(0, count));
    else if (cell.row === 'fixed') out.fill(this.judge(store, cell.slotAt(place)), 0, count);
    else forEachSlot(batch, cell, (slot, row) => (out[row] = this.judge(store, slot)));
  };

  private judgeRows(store: Column, first: number, out: Int8Array): void {
    const known = this.knownOf(store);
    const { codes } = store;
    for (let at = 0; at < out.length; at++) {
      const held = known[codes[first + at]!]!;
      out[at] = held === -2 ? this.judge(store, first + at) : held;
    }
  }
}

/** AND, OR and NOT over tests; undefined for other functions. */
export function quickLogic(name: string, tests: readonly QuickTest[]): QuickTest | undefined {
  const [first, second] = tests;
  if (!first) return undefined;
  if (name === 'NOT') return (place) => flipped(first(place));
  if (name !== 'AND' && name !== 'OR') return undefined;
  const deciding = name === 'OR' ? 1 : 0;
  if (second && tests.length === 2) return quickPair(first, second, deciding);
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

/** All arguments count, since an error anywhere is the result. */
function quickPair(one: QuickTest, other: QuickTest, deciding: 0 | 1): QuickTest {
  return (place) => {
    const a = one(place);
    const b = other(place);
    if (a < 0 || b < 0) return -1;
    return a === deciding ? a : b;
  };
}

const flipped = (held: number): number => (held < 0 ? -1 : 1 - held);
