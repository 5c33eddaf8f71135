import { foldJoined, type FoldOptions } from '../../values/fold-text';

/** Between texts: a folded text has no other white space than single spaces. */
const END = '\n';

/**
 * Folded texts, one after another in one string, so that a word is looked for in all of them by one search. They are
 * numbered from 0.
 */
export class JoinedTexts {
  private flat = '';
  /** Where each text begins, and where the next would. */
  private starts = new Uint32Array(64);
  private added = 0;

  constructor(private readonly options: FoldOptions) {}

  /** How many there are. */
  get count(): number {
    return this.added;
  }

  /** Adds texts, which are folded here. */
  add(texts: readonly string[]): void {
    const count = this.added + texts.length;
    if (count >= this.starts.length) {
      const { starts } = this;
      (this.starts = new Uint32Array(Math.max(count + 1, starts.length * 2))).set(starts);
    }
    let end = this.flat.length;
    for (const { joined, lengths } of foldJoined(texts, this.options)) {
      for (const length of lengths) this.starts[++this.added] = end += length + END.length;
      this.flat += joined + END;
    }
  }

  /** A folded text. */
  at(text: number): string {
    return this.flat.slice(this.starts[text], (this.starts[text + 1] ?? 0) - END.length);
  }

  /** Calls `found` with the number of every text in which a word stands, which is folded and not empty. */
  forEachWith(word: string, found: (text: number) => void): void {
    const { flat, starts } = this;
    let at = flat.indexOf(word);
    while (at >= 0) {
      const text = this.textAt(at);
      found(text);
      // From the next text on: what begins behind all texts is not found.
      at = flat.indexOf(word, starts[text + 1]);
    }
  }

  /** The text that a place lies within. */
  private textAt(place: number): number {
    let low = 0;
    let high = this.added - 1;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if ((this.starts[middle] ?? 0) <= place) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}
