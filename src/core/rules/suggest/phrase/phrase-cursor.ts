import { FIRST_FAMILY, type SavedLook } from '../../../looks/first-family';
import type { Hex, Look } from '../../../looks/look';
import { foldText } from '../../../values/fold-text';
import { itemAt } from '../../../values/item-at';
import type { NamedField } from '../../shape/sentence-words';
import type { FieldId } from '../../../sheet/ids';
import type { Operand } from '../../terms';
import type { Contents } from '../field-contents';
import { PHRASE_TESTS, type PhraseTest } from './phrase-tests';
import { readColour, readLook } from './read-look';
import { neededFor, typedValue, type Needed } from './typed-value';

/** A field as a phrase may name it, with what is known of its contents. */
export interface PhraseField extends NamedField {
  /** What its cells hold; absent where that is not known. */
  readonly contents?: ReadonlySet<Contents>;
  /** Texts that stand in it. */
  readonly texts?: readonly string[];
}

export type NamedLook = Pick<SavedLook, 'id' | 'name'>;

/** What a phrase may name. */
export interface PhraseSheet {
  readonly fields: readonly PhraseField[];
  /** The saved looks; those that every sheet starts with where none are given. */
  readonly looks?: readonly NamedLook[];
  /** What is selected, which a phrase without fields is about. */
  readonly selected?: { readonly fields: readonly FieldId[]; readonly cells: string };
}

/** Where the words of a phrase could no longer be followed, and what could have stood there. */
export interface PhraseStop {
  readonly at: number;
  readonly expected: string;
  readonly options: readonly string[];
}

/** A cell of the sheet. */
const CELL = /^(?:cell\s+)?(\$?[A-Z]{1,3}\$?[1-9]\d*)(?=[\s,]|$)/u;
/** The same in small letters as well. */
const ANY_CELL = new RegExp(CELL, 'iu');

/** Words of a value: up to a comma, or to a word that the grammar goes on with. */
const LITERAL =
  /^(.+?)(?=[,;]\s|\s+(?:and|or|to|as|(?:on|across) the (?:whole )?(?:record|row)|(?:with|including) totals|totals included|by size|whatever the sign)(?:\s|$)|\s*$)/iu;

const EXPECTED: Readonly<Record<Needed, string>> = {
  date: 'a day such as 2026-03-08',
  number: 'a number, a cell or a field',
  any: 'a value',
};

/** Follows a phrase word by word, and remembers how far it came. */
export class PhraseCursor {
  private at = 0;
  /** True where a comma stands before the place that was reached. */
  private hadComma = false;
  /** The furthest place that could not be followed. */
  failure: PhraseStop = { at: 0, expected: 'a field of the sheet', options: [] };
  private readonly looks: readonly NamedLook[];

  constructor(
    private readonly text: string,
    readonly sheet: PhraseSheet,
  ) {
    this.looks = sheet.looks ?? FIRST_FAMILY;
    this.go(0);
  }

  get isAtEnd(): boolean {
    return this.at >= this.text.length;
  }

  /** What is still to be read. */
  get rest(): string {
    return this.text.slice(this.at);
  }

  /** Goes on behind some letters and what separates them from the next. */
  private go(length: number): void {
    this.at += length;
    const skipped = /^[\s,;]*/.exec(this.rest)?.[0] ?? '';
    this.hadComma = /[,;]/.test(skipped);
    this.at += skipped.length;
  }

  /** Notes what could have stood here. Of several places the furthest counts; at one place the options add up. */
  fail(expected: string, options: readonly string[] = []): PhraseStop {
    const { failure, at } = this;
    if (at === failure.at && failure.options.length > 0)
      this.failure = { ...failure, options: [...new Set([...failure.options, ...options])] };
    else if (at >= failure.at) this.failure = { at, expected, options };
    return this.failure;
  }

  /** What `read` finds; where it finds nothing, the cursor is where it was. */
  attempt<T>(read: () => T | undefined): T | undefined {
    const { at, hadComma } = this;
    const found = read();
    if (found === undefined) {
      this.at = at;
      this.hadComma = hadComma;
    }
    return found;
  }

  /** Whether a pattern fits here. */
  fits(pattern: RegExp): boolean {
    return pattern.test(this.rest);
  }

  /** What fits a pattern here, if something does. */
  take(pattern: RegExp): RegExpExecArray | undefined {
    const found = pattern.exec(this.rest);
    if (!found) return undefined;
    this.go(found[0].length);
    return found;
  }

  /** The longest of some words that stands here, and what it means. */
  word<T>(words: Readonly<Record<string, T>>): T | undefined {
    const name = Object.keys(words)
      .toSorted((a, b) => b.length - a.length)
      .find((candidate) => this.stands(candidate));
    if (name === undefined) return undefined;
    this.go(this.lengthOf(name));
    return words[name];
  }

  /** Whether words stand here, and a word does not go on after them. */
  private stands(words: string): boolean {
    const length = this.lengthOf(words);
    if (length === 0 || foldText(this.rest.slice(0, length)) !== foldText(words)) return false;
    return !/[\p{L}\p{N}]$/u.test(words) || !/^[\p{L}\p{N}]/u.test(this.rest.slice(length));
  }

  /** Letters that words take here: inner spaces may be several. */
  private lengthOf(words: string): number {
    const pattern = words
      .split(/\s+/)
      .map((word) => `[\\s\\S]{${word.length}}`)
      .join('\\s+');
    return new RegExp(`^${pattern}`).exec(this.rest)?.[0].length ?? 0;
  }

  /** Whether a list goes on here, by a comma or a word between. */
  goesOn(): boolean {
    const isListed = this.hadComma && !this.isAtEnd;
    return this.word({ or: true, nor: true, and: true }) !== undefined || isListed;
  }

  /** Whether another rule begins here: after a comma, and after a look also by "and". */
  beginsRule(hasLook: boolean): boolean {
    if (this.isAtEnd || !(this.hadComma || (hasLook && this.stands('and')))) return false;
    this.word({ and: true });
    return true;
  }

  /** What stands here in a list, one or more; none where the first is not there. */
  listOf<T>(read: () => T | undefined): T[] {
    const found: T[] = [];
    const next = () => this.attempt(() => (found.length === 0 || this.goesOn() ? read() : undefined));
    for (let item = next(); item !== undefined; item = next()) found.push(item);
    return found;
  }

  /** A field, or several in a list. */
  fields(): readonly PhraseField[] | undefined {
    const found = this.listOf(() => this.field());
    return found.length === 0 ? undefined : [...new Set(found)];
  }

  field(): PhraseField | undefined {
    const whole = this.word(Object.fromEntries(this.sheet.fields.map((field) => [field.label, field])));
    if (whole) return whole;
    const words = /^[^\s,]+(?:\s+[^\s,]+){0,2}/u.exec(this.rest)?.[0].split(/\s+/) ?? [];
    for (let count = words.length; count > 0; count--) {
      const part = words.slice(0, count).join(' ');
      const meant = this.sheet.fields.filter((each) => isPartOf(each, part));
      if (meant.length === 1) {
        this.go(this.lengthOf(part));
        return meant[0];
      }
      if (meant.length > 1) {
        const names = meant.map(({ label }) => label);
        return void this.fail(`one field: ${names.join(' or ')}`, names);
      }
    }
    return void this.fail('a field of the sheet', [
      ...this.sheet.fields.map(({ label }) => label),
      ...(this.at === 0 ? ['whole record where', 'top 10% of'] : []),
    ]);
  }

  test(): PhraseTest | undefined {
    const tests = PHRASE_TESTS.flatMap((test) => test.words.map((words) => [words, test] as const));
    return (
      this.word(Object.fromEntries(tests)) ??
      void this.fail(
        'what is asked of it, such as “below” or “is blank”',
        PHRASE_TESTS.map(({ words }) => itemAt(words, 0)),
      )
    );
  }

  /** A number or a cell, the same for all records. */
  constant(field: PhraseField): number | { readonly cell: string } | undefined {
    const cell = this.take(ANY_CELL);
    if (cell) return { cell: itemAt(cell, 1).toUpperCase() };
    const value = this.literal(field, 'number');
    return typeof value === 'number' ? value : undefined;
  }

  operand(field: PhraseField, { operand: takes }: PhraseTest): Operand | undefined {
    // Beside texts, small letters and a number are a text.
    const cell = takes === 'text' ? undefined : this.take(takes === 'any' ? CELL : ANY_CELL);
    if (cell) return { cell: itemAt(cell, 1).toUpperCase() };
    const quoted = this.take(/^["“']([^"”']+)["”']/u);
    if (quoted) return itemAt(quoted, 1);
    const others = this.sheet.fields.filter(({ id }) => id !== field.id).map(({ id, label }) => [label, id] as const);
    const other = takes === 'text' ? undefined : this.word(Object.fromEntries(others));
    if (other !== undefined) return { field: other };
    // Part of a label will do where words can be no value.
    const isText = takes === 'text' || (takes === 'any' && neededFor(field.contents) === 'any');
    return this.literal(field, takes) ?? (isText ? undefined : this.attempt(() => this.otherThan(field)));
  }

  private otherThan({ id }: PhraseField): Operand | undefined {
    const part = /^[^\s,]+/u.exec(this.rest)?.[0] ?? '';
    const [other, ...more] = part === '' ? [] : this.sheet.fields.filter((each) => isPartOf(each, part));
    if (!other || other.id === id || more.length > 0) return undefined;
    this.go(part.length);
    return { field: other.id };
  }

  /** A number, a day or words, up to what goes on. */
  private literal(field: PhraseField, takes: PhraseTest['operand']): Operand | undefined {
    const words = this.upToLook(LITERAL.exec(this.rest)?.[1] ?? '');
    const needed = takes === 'any' || takes === 'text' ? neededFor(field.contents) : takes;
    const value = takes === 'text' ? words || undefined : typedValue(words, field, needed);
    if (value === undefined) return void this.fail(EXPECTED[takes === 'text' ? 'any' : needed]);
    this.go(words.length);
    return value;
  }

  /** "5 in yellow" without its look; "made in house", which names none, stays whole. */
  private upToLook(words: string): string {
    const [, before, look] = /^(.+?)\s+(?:in|with)\s+(.+)$/iu.exec(words) ?? [];
    if (before === undefined || look === undefined) return words;
    const isNamed = this.looks.some(({ name }) => foldText(name) === foldText(look));
    return isNamed || readLook(look)?.length === look.length ? before : words;
  }

  /** The look after "as"; null where none is named, undefined where it is unknown. */
  look(): Look | null | undefined {
    return this.word({ as: true, in: true }) ? this.anyLook() : (this.attempt(() => this.lookWith()) ?? null);
  }

  /** "with a red border", where "with" does not begin something else. */
  private lookWith(): Look | undefined {
    return this.word({ with: true }) ? this.anyLook() : undefined;
  }

  /** The look that stands here: a saved one by its name, or one in words. */
  anyLook(): Look | undefined {
    const named = this.word(Object.fromEntries(this.looks.map(({ id, name }) => [name, id])));
    if (named !== undefined) return { look: named };
    const described = readLook(this.rest);
    if (!described)
      return void this.fail(
        'a look, or colours such as “bold red on gold”',
        this.looks.map(({ name }) => name),
      );
    this.go(described.length);
    return described.look;
  }

  /** The colour that stands here, by its name. */
  colour(): Hex | undefined {
    const found = readColour(this.rest);
    if (!found) return void this.fail('a colour such as gold or #ffd700');
    this.go(found.length);
    return found.hex;
  }
}

/** Whether words stand in the label of a field, as whole words. */
const isPartOf = ({ label }: PhraseField, part: string): boolean =>
  ` ${foldText(label)} `.includes(` ${foldText(part)} `);
