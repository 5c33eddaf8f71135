/** Places that hold nothing (what `find` gives for a text that is not in), and places of texts that were taken out. */
const EMPTY = -1;
const GONE = -2;

/** Another one in each process: nobody can send texts that all fall on one place. */
export const HASH_SEED = Math.trunc(Math.random() * 0x7fffffff);

/**
 * Finds the number of a text among texts that the owner keeps by number. A table of hashes with open addressing (linear
 * probing, at most two thirds full; the hash is FNV-1a with a seed and the finalizer of MurmurHash3): 12 to 32 bytes a
 * text, and nothing for the garbage collector to follow.
 */
export class TextIndex {
  private numbers = new Int32Array(64).fill(EMPTY);
  private hashes = new Int32Array(64);
  /** Places in use, those of texts taken out among them. */
  private used = 0;
  private held = 0;

  /** `textOf` gives the text of a number that is in the index; texts that are the same have the same hash. */
  constructor(
    private readonly textOf: (number: number) => string,
    private readonly isSame: (one: string, other: string) => boolean = (one, other) => one === other,
  ) {}

  /** Makes room for so many texts more, so that the table grows once. */
  reserve(more: number): void {
    if ((this.used + more) * 3 > this.numbers.length * 2) this.grow(this.held + more);
  }

  /** The number of a text, or -1. */
  find(text: string): number {
    return this.numbers[this.placeOf(text, hashOf(text))] ?? EMPTY;
  }

  /** Puts a text in under a number; one that is there gets the new number. */
  set(text: string, number: number): void {
    const hash = hashOf(text);
    const place = this.placeOf(text, hash);
    if (this.numbers[place] === EMPTY) {
      this.used++;
      this.held++;
    }
    this.numbers[place] = number;
    this.hashes[place] = hash;
    if (this.used * 3 > this.numbers.length * 2) this.grow(this.held);
  }

  /** The number of a text; where it is new, `next`, under which it is put in. */
  findOrSet(text: string, next: number, hash = hashOf(text)): number {
    const place = this.placeOf(text, hash);
    const known = this.numbers[place] ?? EMPTY;
    if (known >= 0) return known;
    this.used++;
    this.held++;
    this.numbers[place] = next;
    this.hashes[place] = hash;
    if (this.used * 3 > this.numbers.length * 2) this.grow(this.held);
    return next;
  }

  /** Takes a text out, which may not be in. */
  delete(text: string): void {
    const place = this.placeOf(text, hashOf(text));
    if (this.numbers[place] === EMPTY) return;
    this.numbers[place] = GONE;
    this.held--;
  }

  /** Where a text is, or the empty place where it belongs. */
  private placeOf(text: string, hash: number): number {
    const { numbers, hashes } = this;
    const last = numbers.length - 1;
    let place = hash & last;
    for (;;) {
      const number = numbers[place] ?? EMPTY;
      if (number === EMPTY) return place;
      if (number >= 0 && hashes[place] === hash && this.isSame(this.textOf(number), text)) return place;
      place = (place + 1) & last;
    }
  }

  /** A new table, at most half full: where texts come and go, a few more do not grow it. */
  private grow(wanted: number): void {
    const { numbers, hashes } = this;
    const size = 2 ** Math.ceil(Math.log2(Math.max(32, wanted) * 2));
    const last = size - 1;
    this.numbers = new Int32Array(size).fill(EMPTY);
    this.hashes = new Int32Array(size);
    for (let from = 0; from < numbers.length; from++) {
      const number = numbers[from] ?? EMPTY;
      const hash = hashes[from] ?? 0;
      if (number < 0) continue;
      let place = hash & last;
      while (this.numbers[place] !== EMPTY) place = (place + 1) & last;
      this.numbers[place] = number;
      this.hashes[place] = hash;
    }
    this.used = this.held;
  }
}

/** The hash of a text, not below 0. */
export function hashOf(text: string): number {
  let hash = HASH_SEED;
  for (let at = 0; at < text.length; at++) hash = withUnit(hash, text.charCodeAt(at));
  return endHash(hash);
}

/** A hash that has gone on by one code unit. */
export const withUnit = (hash: number, unit: number): number => Math.imul(hash ^ unit, 0x01000193);

export function endHash(begun: number): number {
  let hash = Math.imul(begun ^ (begun >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 1;
}
