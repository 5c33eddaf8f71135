import type { CellValue } from './cell-value';
import { itemAt } from './item-at';
import { NumberIds } from './number-ids';
import { TextIndex } from './text-index';
import { foldText, type FoldOptions } from './fold-text';

/** Numbers for contents: equal values of one type have the same, by which repeats and combinations are found. */
export class ContentIds {
  private next = 1;
  private readonly numbers = new NumberIds();
  private readonly dates = new NumberIds();
  /** The folded texts as they came, the id of each, and where each is. */
  private readonly texts: string[] = [];
  private readonly textIds: number[] = [];
  private readonly textIndex = new TextIndex((at) => itemAt(this.texts, at));
  private readonly logicals = new Map<boolean, number>();
  private readonly pairs = new Map<number, Map<number, number>>();

  constructor(private readonly options: FoldOptions) {}

  /** How many ids there are, 0 among them. */
  get count(): number {
    return this.next;
  }

  /** The id of a value: 0 for a blank, -1 for an error. */
  of(value: CellValue): number {
    switch (value.kind) {
      case 'blank':
        return 0;
      case 'error':
        return -1;
      case 'number':
        return this.ofNumber(value.number);
      case 'date':
        return this.took(this.dates.findOrSet(value.serial, this.next));
      case 'logical':
        return this.idIn(this.logicals, value.logical);
      case 'text':
        return this.ofFolded(foldText(value.text, this.options));
    }
  }

  ofNumber(number: number): number {
    return this.took(this.numbers.findOrSet(number, this.next));
  }

  /** The id of a text that is folded. */
  ofFolded(text: string): number {
    const next = this.texts.length;
    const at = this.textIndex.findOrSet(text, next);
    if (at === next) {
      this.texts.push(text);
      this.textIds.push(this.next++);
    }
    return itemAt(this.textIds, at);
  }

  /** The id of a combination that goes on with one more part. */
  with(id: number, part: number): number {
    let after = this.pairs.get(id);
    if (!after) this.pairs.set(id, (after = new Map()));
    return this.idIn(after, part);
  }

  /** Counts an id that was taken just now. */
  private took(id: number): number {
    if (id === this.next) this.next++;
    return id;
  }

  private idIn<K>(map: Map<K, number>, key: K): number {
    let id = map.get(key);
    if (id === undefined) map.set(key, (id = this.next++));
    return id;
  }
}
