import { foldCase } from '../../values/fold-text';
import { TAG, type CellValue } from '../../values/cell-value';
import type { Column } from '../../sheet/column/column';
import { BATCH, forEachSlot, type TestBatch, type TestBits } from './batches';
import type { BoundReference, EvalCursor } from '../values/place';
import type { BinaryOperator } from '../syntax/formula-tree';

/*
 * Quick ways for the commonest parts of formulas: they read the typed arrays of columns, make no objects, and give up
 * (NaN, or -1) where a value is not plainly what they are for; the caller then goes the slow way, which knows
 * everything.
 */

/** The value as a plain number, 0 for a blank; NaN for anything else. */
export type QuickNumber = (place: EvalCursor) => number;
/** The result of a test that is an error. */
export const ERROR = 2;

/** 1 for true, 0 for false, 2 for an error, -1 where the value is not known this way. */
export type QuickTest = (place: EvalCursor) => number;

/** The number in a single cell: 0 where it is blank. */
export function plainNumber(reference: BoundReference, place: EvalCursor): number {
  const { cell } = reference;
  const store = cell?.storeAt(place);
  if (!cell || !store) {
    const value = reference.scalarAt(place);
    return typeof value === 'number' ? value : value === null ? 0 : NaN;
  }
  const slot = cell.slotAt(place);
  if (store.tags[slot] === TAG.number) return store.numbers[slot]!;
  return store.tags[slot] === TAG.blank && !store.hasEmptyText(slot) ? 0 : NaN;
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

/** Whether a content equals a text: one bit where it does, another where it does not, none for errors. */
const [HOLDS, FAILS, NEITHER] = [1, 2, 0] as const;

const ASCII = /^[ -~]*$/;

interface Verdicts {
  /** By content code. */
  byCode: Uint8Array;
  count: number;
}

/**
 * Whether the text in a single cell is a given one, case aside: found once a distinct content of the column. For one
 * row, and for many.
 */
export class TextEquality {
  private readonly wanted: string;
  private readonly known = new WeakMap<Column, Verdicts>();

  constructor(
    /** Which reference of the formula the cell is. */
    private readonly at: number,
    private readonly text: string,
    private readonly isEqual: boolean,
  ) {
    this.wanted = foldCase(text);
  }

  /** What is known of the contents of a column. Numbers, which have a code in common, are no texts. */
  private knownOf(store: Column): Uint8Array {
    let known = this.known.get(store);
    if (!known) this.known.set(store, (known = { byCode: new Uint8Array(64), count: 0 }));
    const { contents } = store;
    if (contents.count > known.byCode.length) {
      const { byCode } = known;
      (known.byCode = new Uint8Array(Math.max(contents.count, byCode.length * 2))).set(byCode);
    }
    for (; known.count < contents.count; known.count++)
      known.byCode[known.count] = this.judge(contents.valueAt(known.count));
    return known.byCode;
  }

  private judge(value: CellValue): number {
    if (value.kind === 'error') return NEITHER;
    const isSame = value.kind === 'text' && (value.text === this.text || this.isWanted(value.text));
    return isSame === this.isEqual ? HOLDS : FAILS;
  }

  /** Texts in ASCII have as many letters in both cases, and most differ in that. */
  private isWanted(text: string): boolean {
    return (text.length === this.wanted.length || !ASCII.test(text)) && foldCase(text) === this.wanted;
  }

  readonly one: QuickTest = (place) => {
    const { cell } = place.refs[this.at]!;
    const store = cell?.storeAt(place);
    if (!cell || !store) return -1;
    const held = this.knownOf(store)[store.codes[cell.slotAt(place)] ?? -1] ?? NEITHER;
    return held === HOLDS ? 1 : held === FAILS ? 0 : -1;
  };

  readonly many: TestBatch = (batch, out) => {
    const { place, first } = batch;
    const { cell } = place.refs[this.at]!;
    const store = cell?.storeAt(place);
    out.holds.fill(0);
    out.fails.fill(0);
    if (!cell || !store) return;
    const known = this.knownOf(store);
    if (cell.row === 'same') judgeRows(store.codes.subarray(first, first + BATCH), known, out);
    else forEachSlot(batch, cell, (slot, row) => put(known[store.codes[slot] ?? -1] ?? NEITHER, row, out));
  };
}

/** Four rows at a time: two thirds of the time of one after another. */
function judgeRows(codes: Uint32Array, known: Uint8Array, { holds, fails }: TestBits): void {
  const heldAt = (at: number): number => known[codes[at]!]!;
  const whole = codes.length & ~31;
  let at = 0;
  for (let word = 0; at < whole; word++) {
    let is = 0;
    let not = 0;
    for (let bit = 0; bit < 32; bit += 4, at += 4) {
      const a = heldAt(at);
      const b = heldAt(at + 1);
      const c = heldAt(at + 2);
      const d = heldAt(at + 3);
      is |= ((a & 1) | ((b & 1) << 1) | ((c & 1) << 2) | ((d & 1) << 3)) << bit;
      not |= ((a >>> 1) | ((b >>> 1) << 1) | ((c >>> 1) << 2) | ((d >>> 1) << 3)) << bit;
    }
    holds[word] = is;
    fails[word] = not;
  }
  for (; at < codes.length; at++) put(heldAt(at), at, { holds, fails });
}

function put(held: number, row: number, { holds, fails }: TestBits): void {
  holds[row >>> 5]! |= (held & 1) << (row & 31);
  fails[row >>> 5]! |= (held >>> 1) << (row & 31);
}

/** AND, OR and NOT over tests; undefined for other functions. */
export function quickLogic(name: string, tests: readonly QuickTest[]): QuickTest | undefined {
  const [first, second] = tests;
  if (!first) return undefined;
  if (name === 'NOT') return (place) => flipped(first(place));
  if (name !== 'AND' && name !== 'OR') return undefined;
  const deciding = name === 'OR' ? 1 : 0;
  if (second && tests.length === 2) return (place) => together(first(place), second(place), deciding);
  return (place) => {
    let result = 1 - deciding;
    for (let at = 0; at < tests.length; at++) result = together(result, tests[at]!(place), deciding);
    return result;
  };
}

/** All arguments count, since an error anywhere is the result. */
function together(a: number, b: number, deciding: 0 | 1): number {
  if (a < 0 || b < 0) return -1;
  if (a === ERROR || b === ERROR) return ERROR;
  return a === deciding ? a : b;
}

const flipped = (held: number): number => (held < 0 || held === ERROR ? held : 1 - held);
