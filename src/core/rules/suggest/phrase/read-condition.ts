import { itemAt } from '../../../values/item-at';
import type { When } from '../../kinds/registry';
import type { Operand } from '../../terms';
import type { PhraseCursor, PhraseField } from './phrase-cursor';
import { PHRASE_TESTS, type PhraseTest } from './phrase-tests';
import { readSpread } from './read-spread';
import { neededFor, typedNumber } from './typed-value';

/** What is asked of a field, and the test it was asked by, which another value may follow. */
export interface AskedTest {
  readonly when: When;
  readonly test?: PhraseTest | undefined;
}

export const RANKS = {
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

/** How many are meant of those at one end. */
export function readPlaces(cursor: PhraseCursor, is: 'top' | 'bottom'): When | undefined {
  const count = cursor.take(/^(\d+)\s*(%|percent\b)?/iu);
  if (!count) return void cursor.fail('how many, such as 10 or 10%');
  const n = Number(count[1]);
  return { kind: 'rank', is, ...(count[2] ? { percent: Math.min(100, n) } : { n: Math.max(1, n) }) };
}

/** What is asked of a field, after its name. */
export function readCondition(cursor: PhraseCursor, field: PhraseField): AskedTest | undefined {
  const own = ownText(cursor, field);
  if (own) return own;
  const known = tolerance(cursor, field) ?? orMore(cursor, field) ?? readSpread(cursor, field);
  if (known) return { when: known };
  const rank = cursor.word(RANKS_AFTER);
  if (rank) {
    const when = readPlaces(cursor, rank);
    return when && { when };
  }
  const test = cursor.test();
  const when = test && readTest(cursor, field, test);
  return when && { when, test };
}

/** A test with the operands that follow it. */
export function readTest(cursor: PhraseCursor, field: PhraseField, test: PhraseTest): When | undefined {
  if (test.isOfTexts && neededFor(field.contents) !== 'any')
    return void cursor.fail('bars, icons, bands, a colour scale or a look', ['bars', 'icons', 'bands at']);
  const operands = readOperands(cursor, field, test);
  if (!operands) return undefined;
  if (test.several && operands.length > test.takes) return { kind: 'text', is: test.several, any: operands };
  const count = test.counts ? cursor.take(/^\d+/) : undefined;
  const unit = test.units ? readUnit(cursor, test.units, count !== undefined) : '';
  return unit === undefined ? undefined : test.make({ operands, count: Number(count?.[0] ?? 1), unit });
}

const TOLERANCE = /^(?:is\s+)?(?:more than\s+)?(\d+(?:\.\d+)?)\s*%\s*(?:(under|below)|over|above)\s+/iu;

/** "more than 10 % under planned": another field of the record, with a tolerance. */
const tolerance = (cursor: PhraseCursor, field: PhraseField): When | undefined =>
  cursor.attempt(() => {
    const found = cursor.take(TOLERANCE);
    const other = found && cursor.field();
    if (!other || other.id === field.id) return undefined;
    const share = (found[2] ? -1 : 1) * Number(found[1]);
    const times = Number((1 + share / 100).toPrecision(12));
    return { kind: 'compare', is: found[2] ? '<' : '>', to: { field: other.id, times } };
  });

const IS = {
  is: 'equals',
  are: 'equals',
  '=': 'equals',
  'is not': 'differs',
  'are not': 'differs',
  '≠': 'differs',
  '<>': 'differs',
} as const;
/** What may come after the texts of a field. */
const GOES_ON = /^(?:as|in|with|including|on|across|paint|painting)\s/iu;

/** "is Below average", where that is a text in the field: what stands there wins over words of the grammar. */
const ownText = (cursor: PhraseCursor, { texts = [] }: PhraseField): AskedTest | undefined =>
  cursor.attempt(() => {
    const is = cursor.word(IS) ?? 'equals';
    const own = Object.fromEntries(texts.map((text) => [text, text]));
    const [to, ...others] = cursor.listOf(() => cursor.word(own));
    if (to === undefined || !(cursor.isAtEnd || cursor.fits(GOES_ON))) return undefined;
    const test = PHRASE_TESTS.find(({ several }) => several === is);
    if (others.length > 0) return { when: { kind: 'text', is, any: [to, ...others] }, test };
    return { when: { kind: 'compare', is: is === 'equals' ? '=' : '!=', to }, test };
  });

const OR_MORE =
  /^(?:(?:is|are)\s+)?([^\s,]+(?:\s\d{3})*)\s+or\s+(?:(more|higher|greater|above|over|later)|less|fewer|lower|smaller|below|under|earlier)(?=\s|$)/iu;

/** "3 or more", "2 or less". */
const orMore = (cursor: PhraseCursor, field: PhraseField): When | undefined =>
  cursor.attempt(() => {
    const found = cursor.take(OR_MORE);
    const to = found && typedNumber(itemAt(found, 1), field);
    return to === undefined ? undefined : { kind: 'compare', is: found?.[2] ? '>=' : '<=', to };
  });

/** The operands of a test: as many as it takes, and more where it takes a list. */
function readOperands(cursor: PhraseCursor, field: PhraseField, test: PhraseTest): Operand[] | undefined {
  const operands: Operand[] = [];
  const more = (): boolean => {
    const operand = cursor.operand(field, test);
    if (operand !== undefined) operands.push(operand);
    return operand !== undefined;
  };
  for (let at = 0; at < test.takes; at++) {
    if (at > 0 && !cursor.word({ and: true, to: true })) return void cursor.fail('“and”', ['and']);
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
