import { parseFormula } from '../../../formula/syntax/parse-formula';
import { foldText } from '../../../values/fold-text';
import { itemAt } from '../../../values/item-at';
import { FIRST_FAMILY } from '../../../looks/first-family';
import type { Look } from '../../../looks/look';
import { columnLetters } from '../../../sheet/address';
import type { FieldId } from '../../../sheet/ids';
import type { RowRole } from '../../../sheet/row-role';
import { kindOf, type When } from '../../kinds/registry';
import type { RuleIdea } from '../../shape/rule-idea';
import type { Paints, Reads } from '../../terms';
import { PhraseCursor, type PhraseField, type PhraseSheet, type PhraseStop } from './phrase-cursor';
import type { PhraseTest } from './phrase-tests';
import { RANKS, readCondition, readPlaces, readTest, type AskedTest } from './read-condition';

/** The rules that were typed in words, or where the words could no longer be followed. */
export type PhraseReading = { readonly ideas: readonly RuleIdea[] } | PhraseStop;

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
/** What is selected, in words, where fields could stand. */
const SELECTED = {
  'the selected cells': 'cells',
  'selected cells': 'cells',
  'the selection': 'cells',
  'the selected fields': 'fields',
  'selected fields': 'fields',
} as const;
/** Whole rows, every second of them: the usual way to shade a table. */
const ALTERNATE = {
  'every second record': true,
  'every second row': true,
  'every other record': true,
  'every other row': true,
  'alternate rows': true,
  'alternate records': true,
} as const;
const WHOLE_RECORD = {
  'on the whole record': true,
  'on the whole row': true,
  'across the record': true,
  'across the row': true,
  'paint the whole record': true,
  'painting the whole record': true,
} as const;
const PAINT = { paint: true, painting: true, on: true } as const;
const TOTALS = { 'with totals': true, 'totals included': true, 'including totals': true } as const;
const BY_SIZE = { 'by size': true, 'whatever the sign': true } as const;
const RECORDS_AND_TOTALS: readonly RowRole[] = ['record', 'total'];

/** Looks of several rules that name none, one after another. */
const NEXT_LOOKS = ['watch', 'alarm', 'clear', 'cool', 'plum'] as const;

/** A rule of a phrase so far as it is read, and what the next one may leave out. */
interface Clause {
  readonly scope: 'record' | 'cell';
  readonly subject: Subject;
  readonly when: When;
  readonly test?: PhraseTest | undefined;
  readonly look?: Look | null;
  readonly paints?: Paints;
  readonly roles?: readonly RowRole[];
}

/** What a rule reads, and the field whose format its numbers have. */
interface Subject {
  readonly reads: Reads;
  readonly field: PhraseField;
}

/**
 * Reads rules typed in words, such as "oxygen below 5 as alarm", "whole record where turbidity above 40", "marks above
 * 89 as clear, below 70 as alarm" or "share in bands at 5% and 10%". The grammar stands in docs/phrases.md. Fields are
 * matched by label, or by a part of one that no other has; case and accents do not matter.
 */
export function readPhrase(text: string, sheet: PhraseSheet): PhraseReading {
  const cursor = new PhraseCursor(text, sheet);
  const clauses: Clause[] = [];
  do {
    const clause = readClause(cursor, clauses.at(-1));
    if (!clause) return cursor.failure;
    clauses.push(clause);
    readTails(cursor, clauses);
  } while (cursor.beginsRule(Boolean(clauses.at(-1)?.look)));
  if (!cursor.isAtEnd) return cursor.fail('the end, “as” and a look, or a comma and another rule', ['as']);
  return { ideas: clauses.map((clause, at) => ideaOf(clause, itemAt(NEXT_LOOKS, at % NEXT_LOOKS.length))) };
}

function ideaOf({ scope, subject, when, look, paints, roles }: Clause, otherwise: string): RuleIdea {
  const { reads } = subject;
  return {
    reads: roles && 'fields' in reads ? { ...reads, roles } : reads,
    when,
    paints: paints ?? scope,
    settles: false,
    ...(kindOf(when).outcomes === 'match' ? { look: look ?? { look: otherwise } } : {}),
  };
}

/**
 * One rule: in full, else about what the one before it or the selection is about, else another value of the test
 * before.
 */
function readClause(cursor: PhraseCursor, before: Clause | undefined): Clause | undefined {
  const clause = cursor.attempt(() => {
    const scope = cursor.word(SCOPES);
    if (cursor.fits(/^=[\p{L}('"]/u)) return readFormula(cursor, scope ?? 'cell');
    const found =
      cursor.attempt(() => readRanked(cursor)) ?? cursor.attempt(() => readQuestion(cursor)) ?? readAlternate(cursor);
    // A rule with a field of its own has its own scope: bars for another field do not run over the whole record.
    if (found) return { scope: scope ?? 'cell', ...found };
    const subject = before?.subject ?? selectedSubject(cursor.sheet, 'fields');
    const asked = subject && cursor.attempt(() => readRest(cursor, subject, before?.test));
    return asked && { scope: scope ?? before?.scope ?? 'cell', subject, ...asked };
  });
  const look = clause && cursor.look();
  return clause && look !== undefined ? { ...clause, look } : undefined;
}

/** What is asked without a field: a test, or another value of the test before. */
function readRest(cursor: PhraseCursor, { field }: Subject, test: PhraseTest | undefined): AskedTest | undefined {
  const rank = cursor.word(RANKS);
  if (rank) {
    const when = readPlaces(cursor, rank);
    return when && { when };
  }
  const asked = cursor.attempt(() => readCondition(cursor, field));
  if (asked || !test) return asked;
  const when = readTest(cursor, field, test);
  return when && { when, test };
}

type Question = Pick<Clause, 'subject' | 'when' | 'test'>;

/** "top 10% of nitrate". */
function readRanked(cursor: PhraseCursor): Question | undefined {
  const rank = cursor.word(RANKS);
  const when = rank && readPlaces(cursor, rank);
  if (!when) return undefined;
  cursor.word({ of: true, in: true });
  const subject = readSubject(cursor);
  return subject && { subject, when };
}

/** "oxygen below 5". */
function readQuestion(cursor: PhraseCursor): Question | undefined {
  const subject = readSubject(cursor);
  const asked = subject && readCondition(cursor, subject.field);
  return asked && { subject, ...asked };
}

/** A formula up to its look: what is in quotes is not one. */
const FORMULA = /^=.*?(?=\s+as\s[^"]*$)|^=.*$/u;

/** "=oxygen<5 as alarm", about the selected fields. */
function readFormula(cursor: PhraseCursor, scope: Clause['scope']): Clause | undefined {
  const subject = selectedSubject(cursor.sheet, 'fields');
  const formula = FORMULA.exec(cursor.rest)?.[0].trim();
  if (!subject || formula === undefined) return undefined;
  const [mistake] = parseFormula(formula).diagnostics;
  if (mistake) return void cursor.fail(`a formula without mistakes (${mistake.message})`);
  cursor.take(FORMULA);
  return { scope, subject, when: { kind: 'formula', formula } };
}

/** "every second record": shades the whole of it. */
function readAlternate(cursor: PhraseCursor): (Question & { readonly paints: Paints }) | undefined {
  const { fields } = cursor.sheet;
  const [field] = fields;
  if (!field || !cursor.word(ALTERNATE)) return undefined;
  const subject = { reads: { fields: [field.id] }, field };
  // Blank records are room for more, and not shaded.
  const formula = `=AND(MOD(ROW(),2)=0,COUNTA($A1:$${columnLetters(fields.length - 1)}1)>0)`;
  return { subject, when: { kind: 'formula', formula, at: 'A1' }, paints: 'record' };
}

function readSubject(cursor: PhraseCursor): Subject | undefined {
  const selected = cursor.word(SELECTED);
  if (selected) return selectedSubject(cursor.sheet, selected);
  const fields = cursor.fields();
  return fields && { reads: { fields: fields.map(({ id }) => id) }, field: itemAt(fields, 0) };
}

function selectedSubject({ fields, selected }: PhraseSheet, what: 'cells' | 'fields'): Subject | undefined {
  const field = fields.find(({ id }) => id === selected?.fields[0]);
  if (!selected || !field) return undefined;
  return { reads: what === 'cells' ? { cells: selected.cells } : { fields: selected.fields }, field };
}

/**
 * What is painted, which rows are read and that the sign does not count, said after rules: it holds for all before it
 * of which it is not said.
 */
function readTails(cursor: PhraseCursor, clauses: Clause[]): void {
  const setAll = (part: Pick<Clause, 'paints' | 'roles'>) => {
    for (const [at, clause] of clauses.entries()) clauses[at] = { ...part, ...clause };
  };
  const compareSizes = () => {
    for (const [at, { when, ...rest }] of clauses.entries())
      if (when.kind === 'compare' || when.kind === 'bands')
        clauses[at] = { ...rest, when: { ...when, magnitude: true } };
  };
  for (;;) {
    const paints = readPaints(cursor);
    if (paints) setAll({ paints });
    else if (cursor.word(TOTALS)) setAll({ roles: RECORDS_AND_TOTALS });
    else if (cursor.word(BY_SIZE)) compareSizes();
    else return;
  }
}

const readPaints = (cursor: PhraseCursor): Paints | undefined =>
  cursor.word(WHOLE_RECORD)
    ? 'record'
    : cursor.attempt(() => {
        const fields = cursor.word(PAINT) && cursor.fields();
        return fields && { fields: fields.map(({ id }) => id) };
      });

/** The fields that a phrase may ask about, so far as it is typed: those that it names, or else those selected. */
export function fieldsInPhrase(text: string, { fields, selected }: PhraseSheet): readonly FieldId[] {
  const named = text.split(/[,;]/).flatMap((part) => {
    const cursor = new PhraseCursor(part, { fields, looks: FIRST_FAMILY });
    cursor.word(SCOPES);
    return (cursor.fields() ?? []).map(({ id }) => id);
  });
  return named.length > 0 ? [...new Set(named)] : (selected?.fields.slice(0, 1) ?? []);
}

/**
 * Whole phrases that begin as the text does: possible continuations, those that begin with the half-typed word first.
 */
export function completePhrase(text: string, sheet: PhraseSheet): string[] {
  const reading = readPhrase(text, sheet);
  const more = 'ideas' in reading ? { at: text.length, options: /\s$/.test(text) ? ['as'] : [] } : reading;
  const typed = foldText(text.slice(more.at));
  const options = more.options.filter((option) => foldText(option).includes(typed) && foldText(option) !== typed);
  const begins = (option: string): number => (foldText(option).startsWith(typed) ? 0 : 1);
  const before = text.slice(0, more.at).replace(/(\S)$/, '$1 ');
  return options.toSorted((a, b) => begins(a) - begins(b)).map((option) => `${before}${option} `);
}
