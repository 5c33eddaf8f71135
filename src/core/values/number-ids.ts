import { HASH_SEED } from './text-index';

const scratch = new Float64Array(1);
const halves = new Uint32Array(scratch.buffer);

/**
 * Gives each of many numbers a number of its own, the same for equal ones; 0 and -0 are equal, and so is NaN to itself.
 * A table of hashes with open addressing: 24 bytes a number, a tenth of the time of a map once there are many.
 */
export class NumberIds {
  private keys = new Float64Array(64);
  /** By place, 0 where there is none. */
  private ids = new Int32Array(64);
  private held = 0;

  /** The id of a number; where it is new, `next`, which is above 0. */
  findOrSet(given: number, next: number): number {
    // -0 + 0 is 0.
    const number = given + 0;
    const place = this.placeOf(number);
    const known = this.ids[place] ?? 0;
    if (known > 0) return known;
    this.keys[place] = number;
    this.ids[place] = next;
    if (++this.held * 2 > this.ids.length) this.grow();
    return next;
  }

  private placeOf(number: number): number {
    const { keys, ids } = this;
    const last = ids.length - 1;
    let place = hashOf(number) & last;
    while (ids[place] !== 0 && keys[place] !== number && !(number !== number && Number.isNaN(keys[place])))
      place = (place + 1) & last;
    return place;
  }

  private grow(): void {
    const { keys, ids } = this;
    this.keys = new Float64Array(keys.length * 2);
    this.ids = new Int32Array(keys.length * 2);
    for (let from = 0; from < ids.length; from++) {
      if (ids[from] === 0) continue;
      const place = this.placeOf(keys[from] ?? 0);
      this.keys[place] = keys[from] ?? 0;
      this.ids[place] = ids[from] ?? 0;
    }
  }
}

/** The finalizer of MurmurHash3 over both halves of a double, with a seed that nobody knows who sends numbers. */
function hashOf(number: number): number {
  scratch[0] = number;
  let hash = Math.imul((halves[0] ?? 0) ^ HASH_SEED, 0x9e3779b1) ^ (halves[1] ?? 0);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return hash ^ (hash >>> 16);
}
