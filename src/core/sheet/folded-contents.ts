import { TAG, type CellValue } from '../values/cell-value';
import type { BitSet } from '../values/bit-set';
import { itemAt } from '../values/item-at';
import { foldText, type FoldOptions } from '../values/fold-text';

/** Between the texts of all contents: a folded text has no other white space than single spaces. */
const END = '\n';

/** A column as far as its contents count. */
interface Contents {
  readonly entries: readonly { readonly shown: string; readonly value: CellValue }[];
  readonly codes: Uint32Array;
  readonly hasLoose: boolean;
  readonly tags: Uint8Array;
  readonly numbers: Float64Array;
  valueCodeAt(slot: number): number | undefined;
  valueAt(slot: number): CellValue;
}

/**
 * What the distinct contents of a column are once they are folded: their texts, and a number for each, the same for
 * contents that meet. Made once a content, with the first rule that asks, and kept while the column lives: rules,
 * edits and searches share them. Cost: a few hundred nanoseconds a distinct content.
 */
export class FoldedContents {
  /** By code. */
  private readonly texts: string[] = [];
  private ids = new Int32Array(64);
  /** Codes of which the id is known: the first so many. */
  private known = 0;
  private next = 1;
  private readonly byNumber = new Map<number, number>();
  private readonly byDate = new Map<number, number>();
  private readonly byText = new Map<string, number>();
  private readonly byLogical = new Map<boolean, number>();
  /** The texts of the first contents, one after another, and where each begins. */
  private flat = '';
  private starts = new Uint32Array(64);
  private joined = 0;
  /** By code, 1 for a text. */
  private texty = new Uint8Array(64);

  constructor(
    private readonly column: Contents,
    private readonly options: FoldOptions,
  ) {}

  /** How many ids there are, 0 among them. Those of values that no content stands for are made when they are asked for. */
  get idCount(): number {
    this.idsByCode();
    return this.next;
  }

  /** The folded text of a distinct content. */
  textOf(code: number): string {
    return (this.texts[code] ??= foldText(itemAt(this.column.entries, code).shown, this.options));
  }

  /** The id of a slot's content: 0 for a blank, -1 for an error. */
  idAt(slot: number): number {
    const code = this.column.valueCodeAt(slot);
    if (code !== undefined) return this.idsByCode()[code] ?? 0;
    return this.column.tags[slot] === TAG.number
      ? this.idIn(this.byNumber, this.column.numbers[slot] ?? NaN)
      : this.idOf(this.column.valueAt(slot));
  }

  /**
   * The ids of the first slots that are among some, one after another, 0 for the others; and how often each id occurs
   * there. Counts must have room for all ids.
   */
  countIds(among: BitSet, { into, counts }: { readonly into: Int32Array; readonly counts: Uint32Array }): void {
    const ids = this.idsByCode();
    const { codes, hasLoose } = this.column;
    const { words } = among;
    for (let slot = 0; slot < into.length; slot++) {
      const isAmong = words[slot >>> 5]! & (1 << (slot & 31));
      const id = isAmong === 0 ? 0 : hasLoose ? this.idAt(slot) : ids[codes[slot]!]!;
      into[slot] = id;
      if (id > 0) counts[id]!++;
    }
  }

  private idsByCode(): Int32Array {
    const { entries } = this.column;
    if (this.known === entries.length) return this.ids;
    if (entries.length > this.ids.length) {
      const grown = new Int32Array(Math.max(entries.length, this.ids.length * 2));
      grown.set(this.ids);
      this.ids = grown;
    }
    for (; this.known < entries.length; this.known++) this.ids[this.known] = this.idOfCode(this.known);
    return this.ids;
  }

  private idOfCode(code: number): number {
    const { value } = itemAt(this.column.entries, code);
    return value.kind === 'text' ? this.idIn(this.byText, this.textOf(code)) : this.idOf(value);
  }

  private idOf(value: CellValue): number {
    switch (value.kind) {
      case 'blank':
        return 0;
      case 'error':
        return -1;
      case 'number':
        return this.idIn(this.byNumber, value.number);
      case 'date':
        return this.idIn(this.byDate, value.serial);
      case 'logical':
        return this.idIn(this.byLogical, value.logical);
      case 'text':
        return this.idIn(this.byText, foldText(value.text, this.options));
    }
  }

  private idIn<K>(map: Map<K, number>, key: K): number {
    let id = map.get(key);
    if (id === undefined) map.set(key, (id = this.next++));
    return id;
  }

  /** By code, 1 for contents that are texts. */
  get isText(): Uint8Array {
    this.join();
    return this.texty;
  }

  /**
   * Calls `found` with the code of every content whose text contains a word, which is folded and not empty: one search
   * through all texts at once.
   */
  forEachWith(word: string, found: (code: number) => void): void {
    this.join();
    const { flat, starts } = this;
    let at = flat.indexOf(word);
    while (at >= 0) {
      const code = this.codeAt(at);
      found(code);
      // From the next text on: what begins behind all texts is not found.
      at = flat.indexOf(word, starts[code + 1]);
    }
  }

  private join(): void {
    const { length } = this.column.entries;
    if (this.joined === length) return;
    if (length >= this.starts.length) {
      const grown = new Uint32Array(Math.max(length + 1, this.starts.length * 2));
      grown.set(this.starts);
      this.starts = grown;
      const texty = new Uint8Array(grown.length);
      texty.set(this.texty);
      this.texty = texty;
    }
    const more: string[] = [];
    let end = this.flat.length;
    for (; this.joined < length; this.joined++) {
      const text = this.textOf(this.joined);
      this.texty[this.joined] = Number(itemAt(this.column.entries, this.joined).value.kind === 'text');
      this.starts[this.joined] = end;
      more.push(text);
      end += text.length + 1;
    }
    this.starts[length] = end;
    this.flat += more.join(END) + END;
  }

  /** The content within whose text a place of the joined texts lies. */
  private codeAt(place: number): number {
    let low = 0;
    let high = this.joined - 1;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if ((this.starts[middle] ?? 0) <= place) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}
