import { TAG, type CellValue } from '../values/cell-value';
import { foldText } from '../values/fold-text';
import { readInput, type ReadOptions } from '../values/read-input';
import { shownText } from '../values/shown-text';

/** One distinct input of a column, read once whatever number of cells hold it. */
export interface Entry {
  readonly input: string;
  readonly value: CellValue;
  /** The number format that the typing implies, or null. */
  readonly format: string | null;
  /** The text shown where no other number format is set: what was typed, less outer spaces and the text mark. */
  readonly shown: string;
}

/**
 * The cells of one field. Layout, by slot: `codes` (which distinct input), `tags` (kind of value, see TAG) and
 * `numbers` (the number or the date serial, NaN where there is none), so that a comparison reads one array.
 */
export class Column {
  codes = new Uint32Array(64);
  tags = new Uint8Array(64);
  numbers = new Float64Array(64).fill(NaN);
  readonly entries: Entry[] = [];
  /** True once a date has been stored: comparisons of numbers must then look at tags as well. */
  hasDates = false;
  private readonly codeOf = new Map<string, number>();
  private readonly folded: string[] = [];

  constructor(private readonly options: ReadOptions = {}) {
    this.codeFor('', false);
  }

  /** Makes room for `size` slots, blank until set. */
  fit(size: number): void {
    if (size <= this.codes.length) return;
    const capacity = Math.max(size, this.codes.length * 2);
    const { codes, tags, numbers } = this;
    (this.codes = new Uint32Array(capacity)).set(codes);
    (this.tags = new Uint8Array(capacity)).set(tags);
    (this.numbers = new Float64Array(capacity).fill(NaN)).set(numbers);
  }

  /** Puts an input into a slot that `fit` has made room for. `asText` for rows whose cells are text, such as headers. */
  set(slot: number, input: string, asText = false): void {
    this.place(slot, this.codeFor(input, asText));
  }

  /** Puts a distinct input that `codeFor` has read into a slot. */
  place(slot: number, code: number): void {
    const { value } = this.entries[code]!;
    this.codes[slot] = code;
    this.tags[slot] = TAG[value.kind];
    this.numbers[slot] = value.kind === 'number' ? value.number : value.kind === 'date' ? value.serial : NaN;
    if (value.kind === 'date') this.hasDates = true;
  }

  /** The code of a distinct input, read on first sight. */
  codeFor(input: string, asText: boolean): number {
    const key = asText ? `\0${input}` : input;
    const known = this.codeOf.get(key);
    if (known !== undefined) return known;
    const content = readInput(input, asText ? { asText } : this.options);
    this.entries.push({ input, ...content, shown: shownInput(input, content.value) });
    this.codeOf.set(key, this.entries.length - 1);
    return this.entries.length - 1;
  }

  entryAt(slot: number): Entry {
    return this.entries[this.codes[slot] ?? 0]!;
  }

  valueAt(slot: number): CellValue {
    return this.entryAt(slot).value;
  }

  /** The folded form of the text shown in a slot, folded once a distinct input. */
  foldedAt(slot: number): string {
    return this.foldedOf(this.codes[slot] ?? 0);
  }

  foldedOf(code: number): string {
    return (this.folded[code] ??= foldText(this.entries[code]!.shown));
  }
}

function shownInput(input: string, value: CellValue): string {
  if (value.kind === 'number' || value.kind === 'date' || (value.kind === 'error' && input.trimStart().startsWith('='))) return input.trim();
  return shownText(value, null);
}
