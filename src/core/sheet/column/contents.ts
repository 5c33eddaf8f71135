import { BLANK, numberOf, TAG, type CellValue } from '../../values/cell-value';
import { itemAt } from '../../values/item-at';
import { readInput, type ReadOptions } from '../../values/read-input';
import { shownText } from '../../values/shown-text';
import { TextIndex } from '../../values/text-index';

/** One distinct content of a column, read once whatever number of cells hold it. */
export interface Entry {
  readonly input: string;
  readonly value: CellValue;
  /** The number format that the typing implies, or null. */
  readonly format: string | null;
  /** The text shown where no other number format is set: what was typed, less outer spaces and the text mark. */
  readonly shown: string;
  readonly isFormula?: boolean;
}

/** Distinct inputs as they were read, by the place of each. */
interface LoadedContents {
  readonly codes: Uint32Array;
  readonly tags: Uint8Array;
  /** The number or the date serial; NaN where there is none. */
  readonly numbers: Float64Array;
  /** Those that are formulas; null where none is. */
  readonly formulas: ReadonlySet<number> | null;
}

const BLANK_ENTRY: Entry = { input: '', value: BLANK, format: null, shown: '' };

/**
 * The distinct contents of a column, each under a code. An ordinary text, which is shown as it was typed, is kept as the
 * string alone: a field of names or notes, all different, costs 24 bytes a text beside the letters.
 */
export class Contents {
  private readonly items: (string | Entry)[];
  private readonly codes: TextIndex;
  /** Codes of what was not typed as it stands: texts of headers, results of formulas. */
  private readonly others = new Map<string, number>();

  /** The first `reserved` codes are blank entries of the caller's own; the empty input has the first. */
  constructor(
    private readonly options: ReadOptions,
    reserved: number,
  ) {
    this.items = Array.from({ length: reserved }, () => BLANK_ENTRY);
    this.codes = new TextIndex((code) => this.inputAt(code));
    this.codes.set('', 0);
  }

  /** How many codes there are, the reserved ones among them. */
  get count(): number {
    return this.items.length;
  }

  /** Whether an input has a code. */
  has(input: string): boolean {
    return this.codes.find(input) >= 0;
  }

  /** The code of a distinct input, read on first sight. */
  codeFor(input: string, asText: boolean): number {
    if (asText) return this.keep(`\0${input}`, () => this.read(input, true));
    const next = this.items.length;
    const code = this.codes.findOrSet(input, next);
    // The index asks for this text only later.
    if (code === next) this.items.push(this.read(input, false));
    return code;
  }

  /** The codes of distinct inputs, with what a column keeps of each by slot. */
  load(inputs: readonly string[]): LoadedContents {
    this.codes.reserve(inputs.length);
    const codes = new Uint32Array(inputs.length);
    const tags = new Uint8Array(inputs.length);
    const numbers = new Float64Array(inputs.length).fill(NaN);
    const formulas = new Set<number>();
    for (let at = 0; at < inputs.length; at++) {
      const code = this.codeFor(itemAt(inputs, at), false);
      codes[at] = code;
      const item = this.itemAt(code);
      if (typeof item === 'string') tags[at] = TAG.text;
      else {
        tags[at] = TAG[item.value.kind];
        numbers[at] = numberOf(item.value);
        if (item.isFormula) formulas.add(at);
      }
    }
    return { codes, tags, numbers, formulas: formulas.size > 0 ? formulas : null };
  }

  /** The code of a text that a formula gave. */
  codeOfText(text: string): number {
    return this.keep(`\u0001${text}`, () => ({
      input: '',
      value: { kind: 'text', text },
      format: null,
      shown: text,
    }));
  }

  /** The code of another value that a formula gave. */
  codeOfValue(value: CellValue): number {
    const shown = shownText(value, null);
    return this.keep(`\u0002${shown}`, () => ({ input: '', value, format: null, shown }));
  }

  private keep(key: string, make: () => string | Entry): number {
    let code = this.others.get(key);
    if (code === undefined) this.others.set(key, (code = this.items.push(make()) - 1));
    return code;
  }

  private read(input: string, asText: boolean): string | Entry {
    const content = readInput(input, asText ? { asText } : this.options);
    const { value } = content;
    if (value.kind === 'text' && value.text === input) return input;
    return { input, ...content, shown: shownInput(input, value) };
  }

  private itemAt(code: number): string | Entry {
    return this.items[code] ?? BLANK_ENTRY;
  }

  entryAt(code: number): Entry {
    const item = this.itemAt(code);
    if (typeof item !== 'string') return item;
    return { input: item, value: { kind: 'text', text: item }, format: null, shown: item };
  }

  valueAt(code: number): CellValue {
    const item = this.itemAt(code);
    return typeof item === 'string' ? { kind: 'text', text: item } : item.value;
  }

  inputAt(code: number): string {
    const item = this.itemAt(code);
    return typeof item === 'string' ? item : item.input;
  }

  shownAt(code: number): string {
    const item = this.itemAt(code);
    return typeof item === 'string' ? item : item.shown;
  }

  isText(code: number): boolean {
    const item = this.itemAt(code);
    return typeof item === 'string' || item.value.kind === 'text';
  }
}

function shownInput(input: string, value: CellValue): string {
  if (value.kind === 'number' || value.kind === 'date') return input.trim();
  return shownText(value, null);
}
