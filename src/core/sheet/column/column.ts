import type { CellBefore } from '../effect';
import type { Style } from '../../looks/style';
import { BLANK, numberOf, TAG, type CellValue } from '../../values/cell-value';
import { foldText, optionsAt, type FoldOptions } from '../../values/fold-text';
import { BLANK_CELL, FIRST_INPUT, MANY_CONTENTS, PLAIN_CELL, plainNumber, type ColumnCells } from './column-cells';
import { Contents, type Entry } from './contents';
import { FoldedContents } from './folded-contents';
import type { ReadOptions } from '../../values/read-input';
import { readNumber } from '../../values/read-number';
import { shownText } from '../../values/shown-text';
import { BitSet } from '../../values/bit-set';

/**
 * Codes that every column has: nothing; a number or date that a formula gave, kept in `numbers` alone; the empty text
 * that one gave; a number that was typed in its shortest form, kept in `numbers` alone as well.
 */
const CODE = { blank: 0, computed: 1, emptyText: 2, plain: 3 } as const;

let none = new Float64Array(64).fill(NaN);

/** As many times NaN, in an array that is never written to. */
function noNumbers(size: number): Float64Array {
  if (size > none.length) none = new Float64Array(size).fill(NaN);
  return none.subarray(0, size);
}

/** Slots from which on a column grows by an eighth: twice its size would be much for one row more. */
const LARGE = 65_536;

/** Whether a code stands for a number of its own in every slot. */
const isLoose = (code: number): boolean => code === CODE.computed || code === CODE.plain;

/**
 * The cells of one field. Layout, by slot: `codes` (which distinct content), `tags` (kind of value, see TAG) and
 * `numbers` (the number or the date serial, NaN where there is none), so that a comparison reads one array. A cell with
 * a formula has its input in `inputs`, and its result in the other three.
 */
export class Column {
  codes = new Uint32Array(64);
  tags = new Uint8Array(64);
  /** Shared with all columns without a number until there is one: see `ownNumbers`. */
  numbers = noNumbers(64);
  private hasNumbers = false;
  /** By code, those of CODE among them: what a slot with a loose value holds is in `numbers`. */
  readonly contents: Contents;
  /** True once a date has been stored: comparisons of numbers must then look at tags as well. */
  hasDates = false;
  /** See `operands`. */
  private kept: Float64Array | null = null;
  /** Ordinary formatting of single cells, by slot. */
  readonly styles = new Map<number, Style>();
  /** Slots whose cell holds a formula. */
  readonly formulas = new BitSet();
  /** By slot, the code of the formula; made with the first one. */
  private inputs: Uint32Array | null = null;
  /** True once there is a value that no distinct content stands for: a formula’s, or a number kept alone. */
  hasLoose = false;
  /** How often a cell was set: what was made of all cells is theirs as long as it is the same. */
  writes = 0;
  /** By what counts: case, accents. */
  private readonly folded: (FoldedContents | undefined)[] = [];

  constructor(options: ReadOptions = {}) {
    this.contents = new Contents(options, Object.keys(CODE).length);
  }

  /** Makes room for `size` slots, blank until set. */
  fit(size: number): void {
    if (size <= this.codes.length) return;
    const { length } = this.codes;
    const capacity = Math.max(size, length + (length < LARGE ? length : length >>> 3));
    const { codes, tags, numbers, inputs } = this;
    (this.codes = new Uint32Array(capacity)).set(codes);
    (this.tags = new Uint8Array(capacity)).set(tags);
    if (this.hasNumbers) (this.numbers = new Float64Array(capacity).fill(NaN)).set(numbers);
    else this.numbers = noNumbers(capacity);
    if (inputs) (this.inputs = new Uint32Array(capacity)).set(inputs);
    this.kept = null;
  }

  /** The numbers, to be written to. */
  private ownNumbers(): Float64Array {
    if (!this.hasNumbers) this.numbers = this.numbers.slice();
    this.hasNumbers = true;
    return this.numbers;
  }

  /**
   * Puts an input into a slot that `fit` has made room for. `asText` for rows whose cells are text, such as headers.
   */
  set(slot: number, input: string, asText = false): void {
    const number = asText ? NaN : this.numberAlone(input);
    if (number === number) this.setPlain(slot, number);
    else this.place(slot, this.contents.codeFor(input, asText));
  }

  /** Sets the first slots, of a column that holds nothing yet. A formula has no result until it is calculated. */
  load(cells: ColumnCells): void {
    this.writes++;
    this.fit(cells.codes.length);
    const read = this.contents.load(cells.inputs);
    this.hasDates ||= read.tags.includes(TAG.date);
    this.hasLoose ||= cells.numbers.length > 0;
    const { codes, tags } = this;
    const isNumeric = this.hasLoose || read.tags.includes(TAG.number) || this.hasDates;
    const numbers = isNumeric ? this.ownNumbers() : null;
    let next = 0;
    for (let slot = 0; slot < cells.codes.length; slot++) {
      const code = cells.codes[slot] ?? BLANK_CELL;
      if (code === BLANK_CELL) continue;
      if (code === PLAIN_CELL) {
        codes[slot] = CODE.plain;
        tags[slot] = TAG.number;
        if (numbers) numbers[slot] = cells.numbers[next++] ?? NaN;
        continue;
      }
      const at = code - FIRST_INPUT;
      codes[slot] = read.codes[at] ?? CODE.blank;
      tags[slot] = read.tags[at] ?? TAG.blank;
      if (numbers) numbers[slot] = read.numbers[at] ?? NaN;
    }
    if (read.formulas === null) return;
    for (let slot = 0; slot < cells.codes.length; slot++) {
      const at = (cells.codes[slot] ?? BLANK_CELL) - FIRST_INPUT;
      if (read.formulas.has(at)) this.place(slot, read.codes[at] ?? CODE.blank);
    }
  }

  /** The number of an input that is to be kept as a number alone; NaN for others. */
  private numberAlone(input: string): number {
    return this.contents.count < MANY_CONTENTS || this.contents.has(input) ? NaN : plainNumber(input);
  }

  /** Puts a number into a slot that was typed in its shortest form. */
  private setPlain(slot: number, number: number): void {
    this.writes++;
    if (this.formulas.has(slot)) this.formulas.set(slot, false);
    this.hasLoose = true;
    this.codes[slot] = CODE.plain;
    this.tags[slot] = TAG.number;
    this.ownNumbers()[slot] = number;
    if (this.kept) this.kept[slot] = number;
  }

  /** Sets a slot to a distinct content. A formula has no result until it is calculated. */
  place(slot: number, code: number): void {
    const { value, isFormula } = this.contents.entryAt(code);
    if (isFormula) {
      this.inputs ??= new Uint32Array(this.codes.length);
      this.inputs[slot] = code;
      this.formulas.fit(slot + 1);
      this.formulas.set(slot, true);
      this.write(slot, CODE.blank, BLANK);
      return;
    }
    if (this.formulas.has(slot)) this.formulas.set(slot, false);
    this.write(slot, code, value);
  }

  /** Sets the result of a formula in its slot. Returns false where it is unchanged. */
  setResult(slot: number, value: CellValue): boolean {
    const code = this.resultCode(value);
    const number = numberOf(value);
    const isSame =
      this.codes[slot] === code && Object.is(this.numbers[slot], number) && this.tags[slot] === TAG[value.kind];
    if (!isSame) this.write(slot, code, code === CODE.emptyText ? BLANK : value);
    return !isSame;
  }

  /** Sets results of formulas in slots one after another, NaN as it stands: the caller sets other values. */
  setNumbers(first: number, numbers: Float64Array): void {
    this.writes++;
    this.hasLoose = true;
    const end = first + numbers.length;
    this.codes.fill(CODE.computed, first, end);
    this.tags.fill(TAG.number, first, end);
    this.ownNumbers().set(numbers, first);
    this.kept?.set(numbers, first);
  }

  /**
   * Visits the formulas among some slots in runs: slots one after another with one input. Costs a few operations a
   * slot, none for 32 that are not among them.
   */
  forEachRun(among: BitSet, visit: (first: number, end: number, code: number) => void): void {
    const { inputs } = this;
    if (!inputs) return;
    const { words } = among;
    let first = -1;
    let running = 0;
    for (let word = 0; word < words.length; word++) {
      const bits = words[word]!;
      if (bits === 0 && first < 0) continue;
      if (bits === 0xffffffff && first >= 0 && holdsOnly(inputs, word << 5, running)) continue;
      for (let slot = word << 5, bit = 0; bit < 32; bit++, slot++) {
        const code = bits & (1 << bit) ? inputs[slot]! : -1;
        if (first >= 0 && code === running) continue;
        if (first >= 0) visit(first, slot, running);
        first = code < 0 ? -1 : slot;
        running = code;
      }
    }
    if (first >= 0) visit(first, words.length << 5, running);
  }

  private write(slot: number, code: number, value: CellValue): void {
    this.writes++;
    this.codes[slot] = code;
    this.tags[slot] = TAG[value.kind];
    const number = numberOf(value);
    if (number === number || this.hasNumbers) this.ownNumbers()[slot] = number;
    if (value.kind === 'date') this.hasDates = true;
    if (this.kept) this.kept[slot] = this.operandAt(slot);
  }

  /**
   * By slot, what a formula reads where it wants a number: a number, 0 for a blank, Infinity for a text, which comes
   * after all numbers and blanks, NaN for what is not so simple: an empty text and FALSE equal a blank. Made with the
   * first formula that reads the column for many rows, 8 bytes a cell, and kept by edits.
   */
  get operands(): Float64Array {
    return (this.kept ??= this.numbers.map((_, slot) => this.operandAt(slot)));
  }

  private operandAt(slot: number): number {
    switch (this.tags[slot]) {
      case TAG.number:
        return this.numberAt(slot);
      case TAG.blank:
        return this.hasEmptyText(slot) ? NaN : 0;
      case TAG.text:
        return this.entryAt(slot).shown === '' ? NaN : Infinity;
      default:
        return NaN;
    }
  }

  private resultCode(value: CellValue): number {
    switch (value.kind) {
      case 'blank':
        return CODE.blank;
      case 'number':
      case 'date':
        this.hasLoose = true;
        return CODE.computed;
      case 'text':
        return value.text === '' ? CODE.emptyText : this.contents.codeOfText(value.text);
      default:
        return this.contents.codeOfValue(value);
    }
  }

  /** The number or date serial of a slot; NaN where its value is neither. */
  numberAt(slot: number): number {
    return this.numbers[slot] ?? NaN;
  }

  /** What statistics need to know of a slot before it changes. */
  cellAt(slot: number): CellBefore {
    return { number: this.numberAt(slot), tag: this.tags[slot] ?? TAG.blank, code: this.codes[slot] ?? CODE.blank };
  }

  /** The input of a slot. */
  inputAt(slot: number): string {
    const code = this.inputCodeAt(slot);
    return code === CODE.plain ? String(this.numberAt(slot)) : this.contents.inputAt(code);
  }

  /** The code of what was typed in a slot: of the formula, where there is one. */
  inputCodeAt(slot: number): number {
    return this.formulas.has(slot) ? this.inputs![slot]! : (this.codes[slot] ?? CODE.blank);
  }

  /** The entry of a slot: its input's, or that of the formula's result. */
  entryAt(slot: number): Entry {
    const code = this.codes[slot] ?? CODE.blank;
    if (code === CODE.plain) return plainEntry(this.numberAt(slot));
    if (code !== CODE.computed) return this.contents.entryAt(code);
    const number = this.numberAt(slot);
    const value: CellValue =
      this.tags[slot] === TAG.date ? { kind: 'date', serial: number } : { kind: 'number', number };
    return { input: '', value, format: null, shown: shownText(value, null) };
  }

  valueAt(slot: number): CellValue {
    return this.codes[slot] === CODE.plain ? { kind: 'number', number: this.numberAt(slot) } : this.entryAt(slot).value;
  }

  /** True where a formula gave an empty text: blank for rules, but not for formulas. */
  hasEmptyText(slot: number): boolean {
    return this.codes[slot] === CODE.emptyText;
  }

  /** A code that stands for the slot's value, or undefined where values must be looked at one by one. */
  valueCodeAt(slot: number): number | undefined {
    const code = this.codes[slot] ?? CODE.blank;
    return isLoose(code) ? undefined : code;
  }

  /** Its distinct contents as they are once they are folded. */
  foldedContents(options: FoldOptions = {}): FoldedContents {
    return (this.folded[optionsAt(options)] ??= new FoldedContents(this, options));
  }

  /** The folded form of the text shown in a slot, folded once a distinct input. */
  foldedAt(slot: number): string {
    const code = this.valueCodeAt(slot);
    return code === undefined ? foldText(this.entryAt(slot).shown) : this.foldedContents().textOf(code);
  }
}

/** A number in its shortest form. */
function plainEntry(number: number): Entry {
  const input = String(number);
  return { input, value: { kind: 'number', number }, format: readNumber(input)?.format ?? null, shown: input };
}

/** Whether 32 codes one after another are one and the same. */
function holdsOnly(codes: Uint32Array, first: number, code: number): boolean {
  for (let at = first; at < first + 32; at++) if (codes[at] !== code) return false;
  return true;
}
