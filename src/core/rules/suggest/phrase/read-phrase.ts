import { itemAt } from '../../../values/item-at';
import { foldText } from '../../../values/fold-text';
import { FIRST_FAMILY, type SavedLook } from '../../../looks/first-family';
import { kindOf, type When } from '../../kinds/registry';
import { readThreshold, type Typed } from '../../shape/read-threshold';
import type { Operand } from '../../terms';
import type { RuleIdea } from '../../shape/rule-idea';
import type { NamedField } from '../../shape/sentence-words';
import type { Contents } from '../field-contents';
import { readLook } from './read-look';
import { PHRASE_TESTS, type PhraseTest } from './phrase-tests';

/** A field as a phrase may name it, with what is known of its contents. */
export interface PhraseField extends NamedField {
  /** What its cells hold; absent where that is not known. */
  readonly contents?: ReadonlySet<Contents>;
  /** Texts that stand in it. */
  readonly texts?: readonly string[];
}

type NamedLook = Pick<SavedLook, 'id' | 'name'>;

/** A rule that was typed in words, or where the words could no longer be followed and what could have stood there. */
export type PhraseReading =
  | { readonly idea: RuleIdea }
  | { readonly at: number; readonly expected: string; readonly options: readonly string[] };

/** Words before the field that say what is painted. */
const SCOPES = {
  'whole record where': 'record',
  'whole row where': 'record',
  'record where': 'record',
  'records where': 'record',
  'row where': 'record',
  'rows where': 'record',
  where: 'cell',
} as const;
const RANKS = {
  top: 'top',
  greatest: 'top',
  highest: 'top',
  bottom: 'bottom',
  least: 'bottom',
  lowest: 'bottom',
} as const;
/** The same after the field: "nitrate top 3", "nitrate is in the lowest 10%". */
const RANKS_AFTER = Object.fromEntries(
  Object.entries(RANKS).flatMap(([word, is]) =>
    ['', 'is in the ', 'in the ', 'among the '].map((before) => [before + word, is]),
  ),
);

/**
 * Reads a rule typed in words, such as "oxygen below 5 as alarm", "whole record where turbidity above 40" or "top 10%
 * of nitrate". The grammar stands in docs/phrases.md. Fields are matched by label, or by a part of one that no other
 * has; case and accents do not matter.
 */
export function readPhrase(
  text: string,
  fields: readonly PhraseField[],
  looks: readonly NamedLook[] = FIRST_FAMILY,
): PhraseReading {
  const cursor = new PhraseCursor(text, fields, looks);
  const scope = cursor.word(SCOPES);
  const rank = cursor.word(RANKS);
  const found = rank ? readRank(cursor, rank) : readTest(cursor);
  if (!found) return cursor.failure;
  const look = cursor.look();
  if (look === undefined) return cursor.failure;
  if (!cursor.isAtEnd) return cursor.fail('the end, or “as” and a look', ['as']);
  return {
    idea: {
      reads: { fields: found.fields.map(({ id }) => id) },
      when: found.when,
      paints: scope ?? 'cell',
      settles: false,
      ...(kindOf(found.when).outcomes === 'match' ? { look: look ?? { look: 'watch' } } : {}),
    },
  };
}

/** The fields that a phrase asks about, so far as it is typed. */
export function fieldsInPhrase(text: string, fields: readonly PhraseField[]): readonly PhraseField[] {
  const cursor = new PhraseCursor(text, fields, FIRST_FAMILY);
  cursor.word(SCOPES);
  return cursor.fields() ?? [];
}

/**
 * Whole phrases that begin as the text does: possible continuations, those that begin with the half-typed word first.
 */
export function completePhrase(
  text: string,
  fields: readonly PhraseField[],
  looks: readonly NamedLook[] = FIRST_FAMILY,
): string[] {
  const reading = readPhrase(text, fields, looks);
  const more = 'idea' in reading ? { at: text.length, options: /\s$/.test(text) ? ['as'] : [] } : reading;
  const typed = foldText(text.slice(more.at));
  const options = more.options.filter((option) => foldText(option).includes(typed) && foldText(option) !== typed);
  const begins = (option: string): number => (foldText(option).startsWith(typed) ? 0 : 1);
  const before = text.slice(0, more.at).replace(/(\S)$/, '$1 ');
  return options.toSorted((a, b) => begins(a) - begins(b)).map((option) => `${before}${option} `);
}

interface FieldCondition {
  readonly fields: readonly PhraseField[];
  readonly when: When;
}

function readRank(cursor: PhraseCursor, is: 'top' | 'bottom'): FieldCondition | undefined {
  const when = readPlaces(cursor, is);
  if (!when) return undefined;
  cursor.word({ of: true, in: true });
  const fields = cursor.fields();
  return fields && { fields, when };
}

/** How many are meant of those at one end. */
function readPlaces(cursor: PhraseCursor, is: 'top' | 'bottom'): When | undefined {
  const count = cursor.match(/^(\d+)\s*(%|percent\b)?/, 'how many, such as 10 or 10%');
  const n = Number(count?.[1]);
  return count && { kind: 'rank', is, ...(count[2] ? { percent: Math.min(100, n) } : { n: Math.max(1, n) }) };
}

function readTest(cursor: PhraseCursor): FieldCondition | undefined {
  const fields = cursor.fields();
  if (!fields) return undefined;
  const when = readCondition(cursor, itemAt(fields, 0));
  return when && { fields, when };
}

function readCondition(cursor: PhraseCursor, field: PhraseField): When | undefined {
  const known = cursor.tolerance(field) ?? cursor.ownText(field) ?? cursor.orMore(field);
  if (known) return known;
  const rank = cursor.word(RANKS_AFTER);
  if (rank) return readPlaces(cursor, rank);
  const test = cursor.test();
  if (!test) return undefined;
  const operands = readOperands(cursor, field, test);
  if (!operands) return undefined;
  if (test.several && operands.length > test.takes) return { kind: 'text', is: test.several, any: operands };
  const count = test.counts ? cursor.count() : undefined;
  const unit = test.units ? readUnit(cursor, test.units, count !== undefined) : '';
  return unit === undefined ? undefined : test.make({ operands, count: count ?? 1, unit });
}

/** The operands of a test: as many as it takes, and more where it takes a list. */
function readOperands(cursor: PhraseCursor, field: PhraseField, test: PhraseTest): Operand[] | undefined {
  const operands: Operand[] = [];
  const more = (): boolean => {
    const operand = cursor.operand(field, test);
    if (operand !== undefined) operands.push(operand);
    return operand !== undefined;
  };
  for (let at = 0; at < test.takes; at++) {
    if (at > 0 && !cursor.match(/^(and|to)\b/, '“and”', ['and'])) return undefined;
    if (!more()) return undefined;
  }
  if (test.ranges && cursor.word({ to: true, and: true }) && !more()) return undefined;
  if (test.operand === 'text' || test.several) while (cursor.goesOn()) if (!more()) return undefined;
  return operands;
}

function readUnit(cursor: PhraseCursor, units: readonly string[], isCounted: boolean): string | undefined {
  const unit = cursor.word(Object.fromEntries(units.flatMap((name) => [[`${name}s`, name] as const, [name, name]])));
  return (
    unit ??
    void cursor.fail('a number of days, weeks or so, or a unit', isCounted ? units.map((name) => `${name}s`) : units)
  );
}

/** Follows a phrase word by word, and remembers how far it came. */
class PhraseCursor {
  private at = 0;
  /** True where a comma stands before the place that was reached. */
  private hadComma = false;
  failure: Extract<PhraseReading, { at: number }>;

  constructor(
    private readonly text: string,
    private readonly sheetFields: readonly PhraseField[],
    private readonly looks: readonly NamedLook[],
  ) {
    this.failure = { at: 0, expected: 'a field', options: [] };
    this.skip();
  }

  get isAtEnd(): boolean {
    return this.at >= this.text.length;
  }

  private get rest(): string {
    return this.text.slice(this.at);
  }

  private skip(): void {
    const skipped = /^[\s,]*/.exec(this.rest)?.[0] ?? '';
    this.hadComma = skipped.includes(',');
    this.at += skipped.length;
  }

  private go(length: number): void {
    this.at += length;
    this.skip();
  }

  fail(expected: string, options: readonly string[] = []): Extract<PhraseReading, { at: number }> {
    return (this.failure = { at: this.at, expected, options });
  }

  match(pattern: RegExp, expected: string, options: readonly string[] = []): RegExpExecArray | undefined {
    const found = new RegExp(pattern.source, 'iu').exec(this.rest);
    if (!found) return void this.fail(expected, options);
    this.go(found[0].length);
    return found;
  }

  /** The longest of some words that stands here, and what it means; nothing is lost where none does. */
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

  /** A field, or several with commas or "and" between them. */
  fields(): readonly PhraseField[] | undefined {
    const first = this.field();
    if (!first) return undefined;
    const found = [first];
    for (;;) {
      const before = this.at;
      const isListed = this.hadComma || this.word({ and: true, or: true }) !== undefined;
      if (isListed) this.word({ and: true, or: true });
      const next = isListed ? this.field() : undefined;
      if (!next) {
        this.at = before;
        return found;
      }
      if (!found.includes(next)) found.push(next);
    }
  }

  field(): PhraseField | undefined {
    const labels = Object.fromEntries(this.sheetFields.map((field) => [field.label, field]));
    const whole = this.word(labels);
    if (whole) return whole;
    const words = /^[^\s,]+(?:\s+[^\s,]+){0,2}/u.exec(this.rest)?.[0].split(/\s+/) ?? [];
    for (let count = words.length; count > 0; count--) {
      const part = words.slice(0, count).join(' ');
      const meant = this.sheetFields.filter(({ label }) => ` ${foldText(label)} `.includes(` ${foldText(part)} `));
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
      ...this.sheetFields.map(({ label }) => label),
      ...(this.at === 0 ? ['whole record where', 'top 10% of'] : []),
    ]);
  }

  test(): PhraseTest | undefined {
    const test = this.word(
      Object.fromEntries(PHRASE_TESTS.flatMap((each) => each.words.map((words) => [words, each] as const))),
    );
    return (
      test ??
      void this.fail(
        'what is asked of it, such as “below” or “is blank”',
        PHRASE_TESTS.map(({ words }) => itemAt(words, 0)),
      )
    );
  }

  /** "more than 10 % under planned": another field of the record, with a tolerance. */
  tolerance(field: PhraseField): When | undefined {
    const found = /^(?:is\s+)?(?:more than\s+)?(\d+(?:\.\d+)?)\s*%\s*(under|below|over|above)\s+/iu.exec(this.rest);
    if (!found) return undefined;
    const before = this.at;
    this.go(found[0].length);
    const other = this.field();
    if (!other || other.id === field.id) return void (this.at = before);
    const isUnder = /under|below/i.test(itemAt(found, 2));
    const times = Number((1 + ((isUnder ? -1 : 1) * Number(found[1])) / 100).toPrecision(12));
    return { kind: 'compare', is: isUnder ? '<' : '>', to: { field: other.id, times } };
  }

  /** "is Below average", where that is a text in the field: what stands there wins over words of the grammar. */
  ownText({ texts = [] }: PhraseField): When | undefined {
    const before = this.at;
    this.word({ is: true, are: true, '=': true });
    const own = this.word(Object.fromEntries(texts.map((each) => [each, each])));
    if (own !== undefined && (this.isAtEnd || /^(as|in)\s/iu.test(this.rest)))
      return { kind: 'compare', is: '=', to: own };
    return void (this.at = before);
  }

  /** "3 or more", "2 or less". */
  orMore(field: PhraseField): When | undefined {
    const found =
      /^(?:(?:is|are)\s+)?([^\s,]+(?:\s\d{3})*)\s+or\s+(?:(more|higher|greater|above|over|later)|less|fewer|lower|smaller|below|under|earlier)(?=\s|$)/iu.exec(
        this.rest,
      );
    const to = found && typedNumber(itemAt(found, 1), field);
    if (typeof to !== 'number') return undefined;
    this.go(found![0].length);
    return { kind: 'compare', is: found![2] ? '>=' : '<=', to };
  }

  /** A count, where one stands here. */
  count(): number | undefined {
    const found = /^\d+/.exec(this.rest);
    if (!found) return undefined;
    this.go(found[0].length);
    return Number(found[0]);
  }

  /** Whether a list of operands goes on here. */
  goesOn(): boolean {
    const isListed = this.hadComma && !this.isAtEnd;
    return this.word({ or: true, nor: true, and: true }) !== undefined || isListed;
  }

  operand(field: PhraseField, { operand: takes }: PhraseTest): Operand | undefined {
    // Beside texts, small letters and a number are a text.
    const pattern = takes === 'any' ? CELL : new RegExp(CELL, 'iu');
    const cell = pattern.exec(this.rest);
    if (cell && takes !== 'text') {
      this.go(cell[0].length);
      return { cell: itemAt(cell, 1).toUpperCase() };
    }
    const quoted = /^["“']([^"”']+)["”']/u.exec(this.rest);
    if (quoted) {
      this.go(quoted[0].length);
      return quoted[1];
    }
    const other =
      takes === 'text'
        ? undefined
        : this.word(
            Object.fromEntries(
              this.sheetFields.filter(({ id }) => id !== field.id).map(({ id, label }) => [label, id]),
            ),
          );
    if (other !== undefined) return { field: other };
    return this.literal(field, takes);
  }

  /** A number, a day or words, up to what goes on. */
  private literal(field: PhraseField, takes: PhraseTest['operand']): Typed | undefined {
    const words = this.upToLook(/^(.+?)(?=,\s|\s+(?:and|or|to|as)(?:\s|$)|\s*$)/iu.exec(this.rest)?.[1] ?? '');
    if (takes === 'text' && words !== '') {
      this.go(words.length);
      return words;
    }
    const needed = neededBy(field, takes);
    const known = typedValue(words, field, needed);
    if (known === undefined) return void this.fail(EXPECTED[needed]);
    this.go(words.length);
    return known;
  }

  /** "5 in yellow" without its look; "made in house", which names none, stays whole. */
  private upToLook(words: string): string {
    const [, before, look] = /^(.+?)\s+in\s+(.+)$/iu.exec(words) ?? [];
    if (before === undefined || look === undefined) return words;
    const isNamed = this.looks.some(({ name }) => foldText(name) === foldText(look));
    return isNamed || readLook(look)?.length === look.length ? before : words;
  }

  /** The look after "as"; null where none is named, undefined where it is unknown. */
  look(): RuleIdea['look'] | null | undefined {
    if (!this.word({ as: true, in: true })) return null;
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
}

/** A cell of the sheet. */
const CELL = /^(?:cell\s+)?(\$?[A-Z]{1,3}\$?[1-9]\d*)(?=[\s,]|$)/u;

const EXPECTED = {
  date: 'a day such as 2026-03-08',
  number: 'a number, a cell or a field',
  any: 'a value',
} as const;

/** What a field that holds nothing but numbers, or dates, is compared with. */
function neededBy({ contents }: PhraseField, takes: PhraseTest['operand']): keyof typeof EXPECTED {
  if (takes === 'date' || takes === 'number') return takes;
  if (!contents || contents.size === 0 || contents.has('texts')) return 'any';
  return contents.has('numbers') ? 'number' : 'date';
}

function typedValue(text: string, field: PhraseField, takes: keyof typeof EXPECTED): Typed | undefined {
  const number = takes === 'date' ? undefined : typedNumber(text, field);
  return number ?? (takes === 'number' ? undefined : readThreshold(text, { format: field.format, takes }));
}

/** A number as people type one: with the unit of the field or a currency sign, its thousands apart. */
function typedNumber(text: string, { format, unit }: PhraseField): number | undefined {
  const escaped = unit?.replace(/[^\p{L}\p{N}]/gu, '\\$&');
  const bare = (escaped ? text.replace(new RegExp(`\\s*${escaped}$`, 'iu'), '') : text)
    .trim()
    .replace(/^[−-]/, '-')
    .replace(/^(-?)\s*\p{Sc}\s*/u, '$1')
    .replace(/\s*\p{Sc}$/u, '')
    .replace(/(?<=\d)\s(?=\d{3}(?!\d))/gu, '');
  const value = bare === '' ? undefined : readThreshold(bare, { format, takes: 'number' });
  return typeof value === 'number' ? value : undefined;
}
