import { itemAt } from '../../../values/item-at';
import { foldText } from '../../../values/fold-text';
import { FIRST_FAMILY } from '../../../looks/first-family';
import { kindOf, type When } from '../../kinds/registry';
import { readThreshold, type Typed } from '../../shape/read-threshold';
import type { Operand } from '../../terms';
import type { RuleIdea } from '../../shape/rule-idea';
import type { NamedField } from '../../shape/sentence-words';
import { PHRASE_TESTS, type PhraseTest } from './phrase-tests';

/** A rule that was typed in words, or where the words could no longer be followed and what could have stood there. */
export type PhraseReading =
  | { readonly idea: RuleIdea }
  | { readonly at: number; readonly expected: string; readonly options: readonly string[] };

/** Words before the field that say what is painted. */
const SCOPES = { 'whole record where': 'record', 'record where': 'record', where: 'cell' } as const;
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
export function readPhrase(text: string, fields: readonly NamedField[]): PhraseReading {
  const cursor = new PhraseCursor(text, fields);
  const scope = cursor.word(SCOPES);
  const rank = cursor.word(RANKS);
  const found = rank ? readRank(cursor, rank) : readTest(cursor);
  if (!found) return cursor.failure;
  const look = cursor.look();
  if (look === undefined) return cursor.failure;
  if (!cursor.isAtEnd) return cursor.fail('the end, or “as” and a look', ['as']);
  return {
    idea: {
      reads: { fields: [found.field.id] },
      when: found.when,
      paints: scope ?? 'cell',
      settles: false,
      ...(kindOf(found.when).outcomes === 'match' ? { look: { look: look ?? 'watch' } } : {}),
    },
  };
}

/**
 * Whole phrases that begin as the text does: possible continuations, those that begin with the half-typed word first.
 */
export function completePhrase(text: string, fields: readonly NamedField[]): string[] {
  const reading = readPhrase(text, fields);
  const more = 'idea' in reading ? { at: text.length, options: /\s$/.test(text) ? ['as'] : [] } : reading;
  const typed = foldText(text.slice(more.at));
  const options = more.options.filter((option) => foldText(option).includes(typed) && foldText(option) !== typed);
  const begins = (option: string): number => (foldText(option).startsWith(typed) ? 0 : 1);
  const before = text.slice(0, more.at).replace(/(\S)$/, '$1 ');
  return options.toSorted((a, b) => begins(a) - begins(b)).map((option) => `${before}${option} `);
}

interface FieldCondition {
  readonly field: NamedField;
  readonly when: When;
}

function readRank(cursor: PhraseCursor, is: 'top' | 'bottom'): FieldCondition | undefined {
  const when = readPlaces(cursor, is);
  if (!when) return undefined;
  cursor.word({ of: true, in: true });
  const field = cursor.field();
  return field && { field, when };
}

/** How many are meant of those at one end. */
function readPlaces(cursor: PhraseCursor, is: 'top' | 'bottom'): When | undefined {
  const count = cursor.match(/^(\d+)\s*(%|percent\b)?/, 'how many, such as 10 or 10%');
  const n = Number(count?.[1]);
  return count && { kind: 'rank', is, ...(count[2] ? { percent: Math.min(100, n) } : { n: Math.max(1, n) }) };
}

function readTest(cursor: PhraseCursor): FieldCondition | undefined {
  const field = cursor.field();
  if (!field) return undefined;
  const share = cursor.tolerance(field);
  if (share) return { field, when: share };
  const rank = cursor.word(RANKS_AFTER);
  if (rank) {
    const when = readPlaces(cursor, rank);
    return when && { field, when };
  }
  const test = cursor.test();
  if (!test) return undefined;
  const operands: Operand[] = [];
  for (let at = 0; at < test.takes; at++) {
    if (at > 0 && !cursor.match(/^(and|to)\b/, '“and”', ['and'])) return undefined;
    const operand = cursor.operand(field, test);
    if (operand === undefined) return undefined;
    operands.push(operand);
  }
  while (test.operand === 'text' && cursor.word({ or: true, nor: true })) {
    const operand = cursor.operand(field, test);
    if (operand === undefined) return undefined;
    operands.push(operand);
  }
  const count = test.counts ? cursor.match(/^(\d+)/, 'how many') : undefined;
  if (test.counts && !count) return undefined;
  const unit = test.units
    ? cursor.word(
        Object.fromEntries(
          test.units.flatMap((name) => [
            [`${name}s`, name],
            [name, name],
          ]),
        ),
      )
    : undefined;
  if (test.units && !unit)
    return void cursor.fail('a unit', test.counts ? test.units.map((name) => `${name}s`) : test.units);
  return { field, when: test.make({ operands, count: Number(count?.[1] ?? 0), unit: unit ?? '' }) };
}

/** Follows a phrase word by word, and remembers how far it came. */
class PhraseCursor {
  private at = 0;
  failure: Extract<PhraseReading, { at: number }>;

  constructor(
    private readonly text: string,
    private readonly fields: readonly NamedField[],
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
    this.at += /^[\s,]*/.exec(this.rest)?.[0].length ?? 0;
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

  field(): NamedField | undefined {
    const labels = Object.fromEntries(this.fields.map((field) => [field.label, field]));
    const whole = this.word(labels);
    if (whole) return whole;
    const words = /^[^\s,]+(?:\s+[^\s,]+){0,2}/u.exec(this.rest)?.[0].split(/\s+/) ?? [];
    for (let count = words.length; count > 0; count--) {
      const part = words.slice(0, count).join(' ');
      const meant = this.fields.filter(({ label }) => ` ${foldText(label)} `.includes(` ${foldText(part)} `));
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
      ...this.fields.map(({ label }) => label),
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
  tolerance(field: NamedField): When | undefined {
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

  operand(field: NamedField, { operand: takes }: PhraseTest): Operand | undefined {
    const cell = /^(?:cell\s+)?(\$?[A-Z]{1,3}\$?[1-9]\d*)(?=\s|$)/u.exec(this.rest);
    if (cell && takes !== 'text') {
      this.go(cell[0].length);
      return { cell: itemAt(cell, 1) };
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
            Object.fromEntries(this.fields.filter(({ id }) => id !== field.id).map(({ id, label }) => [label, id])),
          );
    if (other !== undefined) return { field: other };
    return this.literal(field, takes);
  }

  /** A number, a day or words, up to what goes on. */
  private literal(field: NamedField, takes: PhraseTest['operand']): Typed | undefined {
    const words = /^(.+?)(?=\s+(?:and|or|to|as)(?:\s|$)|\s*$)/iu.exec(this.rest)?.[1] ?? '';
    const bare = field.unit
      ? words.replace(new RegExp(`\\s*${field.unit.replace(/[^\p{L}\p{N}]/gu, '\\$&')}$`, 'iu'), '')
      : words;
    if (takes === 'text' && words !== '') {
      this.go(words.length);
      return words;
    }
    const value =
      bare === '' ? undefined : readThreshold(bare, { format: field.format, takes: takes === 'text' ? 'any' : takes });
    if (value === undefined)
      return void this.fail(
        takes === 'date' ? 'a day such as 2026-03-08' : takes === 'number' ? 'a number, a cell or a field' : 'a value',
      );
    this.go(words.length);
    return value;
  }

  /** The look after "as"; null where none is named, undefined where it is unknown. */
  look(): string | null | undefined {
    if (!this.word({ as: true, in: true })) return null;
    const looks = Object.fromEntries(FIRST_FAMILY.map(({ id, name }) => [name, id]));
    return this.word(looks) ?? void this.fail('a look', Object.keys(looks));
  }
}
