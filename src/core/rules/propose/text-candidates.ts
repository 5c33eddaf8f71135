import type { Sheet } from '../../sheet/sheet';
import { textAt } from '../../sheet/shown-cell';
import { TAG } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import type { TextWhen } from '../kinds/text';
import type { Evidence, ExampleCell } from './evidence';
import { sumOf, testLength, textLength, type NameLengths } from './shortness';

/** Texts that a candidate lists at most. */
const MAX_LISTED = 6;
/** Parts of a text that are tried as its beginning or end. */
const MAX_PARTS = 4;
/** Letters of a text that parts are looked for in, and words that are tried: beyond them nobody means one. */
const MAX_LETTERS = 200;
const MAX_WORDS = 40;
/** A part of a word says something from this length on. */
const MIN_PART = 3;

const WORD = /[\p{L}\p{N}]+/gu;
/** Places where one kind of sign ends and another begins. */
const BORDER = /(?<=\p{L})(?!\p{L})|(?<!\p{L})(?=\p{L})|(?<=\p{N})(?!\p{N})|(?<!\p{N})(?=\p{N})/gu;

/** Tests of the text that hold for all cells that are wanted and for none that is not. */
export function* textCandidates(evidence: Evidence): Iterable<TextWhen> {
  const { sheet, yes, no } = evidence;
  // Numbers are compared as such; the text that they show counts only where they are not wanted.
  const isText = ({ column, slot }: ExampleCell): boolean => sheet.column(column).tags[slot] === TAG.text;
  if (yes.length === 0 || !yes.every(isText)) return;
  const wanted = yes.map((cell) => textOf(sheet, cell));
  const others = no.map((cell) => textOf(sheet, cell)).filter((text) => text !== '');
  yield* listed('equals', wanted, others);
  if (others.length) yield* listed('differs', others, wanted);
  yield* words('contains', wanted, others);
  if (others.length) yield* words('lacks', others, wanted);
  yield* ends('starts', wanted, others);
  yield* ends('ends', wanted, others);
  yield* patterns(wanted, others);
}

/** The text of a cell as rules over texts meet it; empty where there is none. */
const textOf = (sheet: Sheet, { column, slot }: ExampleCell): string =>
  sheet.column(column).tags[slot] === TAG.error ? '' : textAt(sheet, column, slot).trim();

/** The first spelling of each text. */
function distinct(texts: readonly string[]): Map<string, string> {
  const found = new Map<string, string>();
  for (const text of texts) if (!found.has(foldText(text))) found.set(foldText(text), text);
  return found;
}

function* listed(is: 'equals' | 'differs', texts: readonly string[], against: readonly string[]): Iterable<TextWhen> {
  const found = distinct(texts);
  if (found.size > MAX_LISTED || against.some((text) => found.has(foldText(text)))) return;
  yield { kind: 'text', is, any: [...found.values()] };
}

/** Words that all of some texts contain and none of the others, one at a time; two where no single one is enough. */
function* words(is: 'contains' | 'lacks', texts: readonly string[], against: readonly string[]): Iterable<TextWhen> {
  const [folded, avoided] = [texts.map((text) => foldText(text)), against.map((text) => foldText(text))];
  const found = new Map<string, string>();
  for (const text of texts)
    for (const [word] of text.matchAll(WORD)) if (!found.has(foldText(word))) found.set(foldText(word), word);
  const usable = [...found]
    .filter(([word]) => word !== '' && !avoided.some((text) => text.includes(word)))
    .slice(0, MAX_WORDS);
  const covers = usable.map(([word, spelled]) => ({
    spelled,
    hits: folded.map((text) => text.includes(word)),
  }));
  const whole = covers.filter(({ hits }) => hits.every(Boolean));
  for (const { spelled } of whole) yield { kind: 'text', is, any: [spelled] };
  if (whole.length) return;
  const part = commonPart(folded);
  if (part.length >= MIN_PART && !avoided.some((text) => text.includes(part))) yield { kind: 'text', is, any: [part] };
  for (const [at, one] of covers.entries())
    for (const other of covers.slice(at + 1))
      if (one.hits.every((hit, text) => hit || other.hits[text]))
        yield { kind: 'text', is, any: [one.spelled, other.spelled] };
}

/** The longest text that all of some texts contain, without spaces at its ends. */
function commonPart([whole = '', ...rest]: readonly string[]): string {
  const first = whole.slice(0, MAX_LETTERS);
  for (let length = first.length; length >= MIN_PART; length--)
    for (let from = 0; from + length <= first.length; from++) {
      const part = first.slice(from, from + length);
      if (part.trim() === part && rest.every((text) => text.includes(part))) return part;
    }
  return '';
}

type TextEnd = 'starts' | 'ends';

const hasAt = (which: TextEnd, folded: string, part: string): boolean =>
  which === 'starts' ? folded.startsWith(part) : folded.endsWith(part);

/** Beginnings or ends that all of some texts have and none of the others. */
function* ends(which: TextEnd, texts: readonly string[], against: readonly string[]): Iterable<TextWhen> {
  const has = (text: string, part: string): boolean => hasAt(which, foldText(text), part);
  const first = (texts[0] ?? '').slice(0, which === 'starts' ? MAX_LETTERS : undefined).slice(-MAX_LETTERS);
  const borders = [...first.matchAll(BORDER)].map(({ index }) => index).filter((at) => at > 0 && at < first.length);
  const parts = borders.map((at) => (which === 'starts' ? first.slice(0, at) : first.slice(at)).trim());
  const sorted = [...new Set([...parts, ...shared(which, texts)])].sort((a, b) => a.length - b.length);
  let left = MAX_PARTS;
  for (const part of sorted) {
    const folded = foldText(part);
    if (folded === '' || !texts.every((text) => has(text, folded)) || against.some((text) => has(text, folded)))
      continue;
    yield { kind: 'text', is: which, any: [part] };
    if (--left === 0) return;
  }
}

/** The longest beginning or end that texts share, and its first or last letter. */
function shared(which: TextEnd, [first = '', ...rest]: readonly string[]): string[] {
  const folded = rest.map((text) => foldText(text));
  let length = 0;
  for (let at = 1; at <= Math.min(first.length, MAX_LETTERS); at++) {
    const part = foldText(which === 'starts' ? first.slice(0, at) : first.slice(-at));
    if (!folded.every((other) => hasAt(which, other, part))) break;
    length = at;
  }
  if (length === 0) return [];
  return [1, length].map((size) => (which === 'starts' ? first.slice(0, size) : first.slice(-size)));
}

/** The form that all of some texts have, such as letters, a hyphen and digits, and none of the others. */
function* patterns(texts: readonly string[], against: readonly string[]): Iterable<TextWhen> {
  for (const shape of [shapeOf, looseShapeOf]) {
    const [form = '', ...rest] = texts.map(shape);
    if (!/\\d|\\p/.test(form) || rest.some((other) => other !== form)) continue;
    if (against.some((text) => shape(text) === form)) continue;
    yield { kind: 'text', is: 'pattern', any: [`^${form}$`] };
    return;
  }
}

const RUNS = /\p{N}+|\p{L}+|[^\p{N}\p{L}]+/gu;
const escaped = (signs: string): string => signs.replace(/[\\^$.*+?()[\]{}|/]/g, String.raw`\$&`);

/** A text as a pattern: its runs of digits and of letters, other signs as they are. */
const shapeBy = (text: string, ofRun: (letter: string, length: number) => string): string =>
  text.replace(RUNS, (run) => {
    if (/^\p{N}/u.test(run)) return ofRun(String.raw`\d`, run.length);
    return /^\p{L}/u.test(run) ? ofRun(String.raw`\pL`, run.length) : escaped(run);
  });

/** So many digits, so many letters. */
const shapeOf = (text: string): string => shapeBy(text, (letter, length) => `${letter}{${length}}`);

/** Any number of them. */
const looseShapeOf = (text: string): string => shapeBy(text, (letter) => `${letter}+`);

/** The length of a test of the text. */
export const textTestLength = ({ is, any }: TextWhen, of: NameLengths): number =>
  testLength(is) + sumOf(any, (word) => wordLength(is, String(word), of));

/** A whole value is one of those in the field, a word one of a few more; a part of a word is spelled besides. */
function wordLength(is: TextWhen['is'], word: string, of: NameLengths): number {
  if (is === 'equals' || is === 'differs') return of.value;
  return is === 'contains' || is === 'lacks' ? of.value + 1 : of.value + 1 + textLength(word) / 2;
}
