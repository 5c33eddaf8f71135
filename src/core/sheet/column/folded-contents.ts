import type { Contents } from './contents';
import { TAG, type CellValue } from '../../values/cell-value';
import type { BitSet } from '../../values/bit-set';
import { foldText, type FoldOptions } from '../../values/fold-text';
import { ContentIds } from '../../values/content-ids';
import { JoinedTexts } from './joined-texts';

/** A column as far as its contents count. */
interface WithContents {
  readonly contents: Contents;
  readonly codes: Uint32Array;
  readonly hasLoose: boolean;
  readonly tags: Uint8Array;
  readonly numbers: Float64Array;
  readonly writes: number;
  valueCodeAt(slot: number): number | undefined;
  valueAt(slot: number): CellValue;
}

/** So many contents that are not folded yet are folded together; fewer one by one. */
const MANY = 256;

/**
 * What the distinct contents of a column are once they are folded: their texts, and a number for each, the same for
 * contents that meet. Made once a content, with the first rule that asks, and kept while the column lives: rules,
 * edits and searches share them. Cost: a few hundred nanoseconds a distinct content.
 */
export class FoldedContents {
  private ids = new Int32Array(64);
  /** Codes of which the id is known: the first so many. */
  private known = 0;
  private readonly met: ContentIds;
  private slotIds: { readonly writes: number; readonly ids: Int32Array } | null = null;
  /** The texts of the first contents. */
  private readonly joined: JoinedTexts;
  /** By code, 1 for a text. */
  private texty = new Uint8Array(64);

  constructor(
    private readonly column: WithContents,
    private readonly options: FoldOptions,
  ) {
    this.met = new ContentIds(options);
    this.joined = new JoinedTexts(options);
  }

  /** How many ids there are, 0 among them. Those of values that no content stands for are made when they are asked for. */
  get idCount(): number {
    this.idsByCode();
    return this.met.count;
  }

  /** The folded text of a distinct content. Where many are not folded yet, all of them are. */
  textOf(code: number): string {
    const { contents } = this.column;
    if (code >= this.joined.count && contents.count - this.joined.count >= MANY) this.join();
    return code < this.joined.count ? this.joined.at(code) : foldText(contents.shownAt(code), this.options);
  }

  /** The id of a slot's content: 0 for a blank, -1 for an error. */
  idAt(slot: number): number {
    const code = this.column.valueCodeAt(slot);
    if (code !== undefined) return this.idsByCode()[code] ?? 0;
    return this.column.tags[slot] === TAG.number
      ? this.met.ofNumber(this.column.numbers[slot] ?? NaN)
      : this.met.of(this.column.valueAt(slot));
  }

  /**
   * The ids of the first slots that are among some, one after another, 0 for the others; and how often each id occurs
   * there. Counts must have room for all ids.
   */
  countIds(among: BitSet, { into, counts }: { readonly into: Int32Array; readonly counts: Uint32Array }): void {
    const bySlot = this.column.hasLoose ? this.idsBySlot(into.length) : null;
    const ids = this.idsByCode();
    const { codes } = this.column;
    const { words } = among;
    for (let slot = 0; slot < into.length; slot++) {
      const isAmong = words[slot >>> 5]! & (1 << (slot & 31));
      const id = isAmong === 0 ? 0 : bySlot ? bySlot[slot]! : ids[codes[slot]!]!;
      into[slot] = id;
      if (id > 0) counts[id]!++;
    }
  }

  /** The ids of the first slots, where values have none by their code; kept until a cell is set. */
  private idsBySlot(count: number): Int32Array {
    const { writes } = this.column;
    if (this.slotIds?.writes !== writes || this.slotIds.ids.length < count) {
      const ids = new Int32Array(count);
      for (let slot = 0; slot < count; slot++) ids[slot] = this.idAt(slot);
      this.slotIds = { writes, ids };
    }
    return this.slotIds.ids;
  }

  private idsByCode(): Int32Array {
    const { count } = this.column.contents;
    if (this.known === count) return this.ids;
    if (count > this.ids.length) {
      const { ids } = this;
      (this.ids = new Int32Array(Math.max(count, ids.length * 2))).set(ids);
    }
    for (; this.known < count; this.known++) this.ids[this.known] = this.idOfCode(this.known);
    return this.ids;
  }

  private idOfCode(code: number): number {
    const { contents } = this.column;
    return contents.isText(code) ? this.met.ofText(contents.shownAt(code)) : this.met.of(contents.valueAt(code));
  }

  /** By code, 1 for contents that are texts. */
  get isText(): Uint8Array {
    this.join();
    return this.texty;
  }

  /** Calls `found` with the code of every content whose text contains a word, which is folded and not empty. */
  forEachWith(word: string, found: (code: number) => void): void {
    this.join();
    this.joined.forEachWith(word, found);
  }

  private join(): void {
    const { contents } = this.column;
    const first = this.joined.count;
    if (first === contents.count) return;
    if (contents.count > this.texty.length) {
      const { texty } = this;
      (this.texty = new Uint8Array(Math.max(contents.count, texty.length * 2))).set(texty);
    }
    const more: string[] = [];
    for (let code = first; code < contents.count; code++) {
      this.texty[code] = Number(contents.isText(code));
      more.push(contents.shownAt(code));
    }
    this.joined.add(more);
  }
}
