import type { CellValue } from './cell-value';
import { itemAt } from './item-at';
import { NumberIds } from './number-ids';
import { endHash, HASH_SEED, hashOf, TextIndex, withUnit } from './text-index';
import { foldText, letterFolds, type FoldOptions, type LetterFolds } from './fold-text';

/** Numbers for contents: equal values of one type have the same, by which repeats and combinations are found. */
export class ContentIds {
  private next = 1;
  private readonly numbers = new NumberIds();
  private readonly dates = new NumberIds();
  /** Texts as they came where letters fold by themselves, else folded; the id of each, and where each is. */
  private readonly texts: string[] = [];
  private readonly textIds: number[] = [];
  private readonly folds: LetterFolds;
  private readonly textIndex: TextIndex;
  private readonly logicals = new Map<boolean, number>();
  private readonly pairs = new Map<number, Map<number, number>>();

  constructor(private readonly options: FoldOptions) {
    const folds = letterFolds(options);
    this.folds = folds;
    this.textIndex = new TextIndex(
      (at) => itemAt(this.texts, at),
      (one, other) => meet(one, other, folds),
    );
  }

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
        return this.ofText(value.text);
    }
  }

  ofNumber(number: number): number {
    return this.took(this.numbers.findOrSet(number, this.next));
  }

  /** The id of a text: most are found letter by letter, without a folded text being made. */
  ofText(text: string): number {
    let hash = foldedHash(text, this.folds);
    let kept = text;
    if (hash < 0) {
      kept = foldText(text, this.options);
      hash = hashOf(kept);
    }
    const next = this.texts.length;
    const at = this.textIndex.findOrSet(kept, next, hash);
    if (at === next) {
      this.texts.push(kept);
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

const SPACE = 0x20;

/** The hash of the folded form of a text whose letters fold by themselves; -1 for others. */
function foldedHash(text: string, folds: LetterFolds): number {
  let hash = HASH_SEED;
  let before = SPACE;
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    const folded = folds[unit] ?? 0;
    if (folded === 0 || (unit === SPACE && before === SPACE)) return -1;
    hash = withUnit(hash, folded);
    before = unit;
  }
  return before === SPACE ? -1 : endHash(hash);
}

/** Whether two texts are the same once folded, of which each is folded or of letters that fold by themselves. */
function meet(one: string, other: string, folds: LetterFolds): boolean {
  if (one === other) return true;
  if (one.length !== other.length) return false;
  for (let at = 0; at < one.length; at++) {
    const [a, b] = [one.charCodeAt(at), other.charCodeAt(at)];
    if (a !== b && (folds[a] || a) !== (folds[b] || b)) return false;
  }
  return true;
}
