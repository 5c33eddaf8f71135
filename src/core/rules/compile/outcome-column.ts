import { BitSet } from '../../values/bit-set';

/**
 * The outcomes of one rule over one column, by slot: a bit for "has an outcome", and for kinds with several outcomes
 * the number of it.
 */
export class OutcomeColumn {
  readonly has = new BitSet();
  codes: Int32Array | null;

  constructor(outcomes: 'match' | 'several') {
    this.codes = outcomes === 'several' ? new Int32Array(0) : null;
  }

  fit(size: number): void {
    this.has.fit(size);
    if (!this.codes || size <= this.codes.length) return;
    const grown = new Int32Array(Math.max(size, this.codes.length * 2));
    grown.set(this.codes);
    this.codes = grown;
  }

  /** The outcome of a slot, -1 for none. */
  at(slot: number): number {
    if (!this.has.has(slot)) return -1;
    return this.codes ? this.codes[slot]! : 0;
  }

  put(slot: number, outcome: number): void {
    this.has.set(slot, outcome >= 0);
    if (this.codes) this.codes[slot] = outcome;
  }
}
