import { trimSpace } from './trim-space';

export interface FoldOptions {
  /** Keep the difference between upper and lower case. */
  readonly case?: boolean;
  /** Keep accents and other marks. */
  readonly accents?: boolean;
}

/** A number for each of the four ways to fold. */
export const optionsAt = (options: FoldOptions): number =>
  Number(options.case ?? false) * 2 + Number(options.accents ?? false);

const INNER_SPACE = /\p{White_Space}+/gu;
const MARKS = /\p{Mn}/gu;
/** Printable ASCII, of which only the space is white space. */
const ASCII = /^[\x20-\x7e]*$/;
const UNEVEN_SPACES = /^ | $| {2}/;
/**
 * The form in which two texts meet: trimmed, inner spaces made one, NFC, full case folding, marks dropped. Texts are
 * equal for rules when their folded forms are the same code points.
 */
export function foldText(text: string, options: FoldOptions = {}): string {
  if (ASCII.test(text)) {
    const spaced = UNEVEN_SPACES.test(text) ? text.trim().replace(/ +/g, ' ') : text;
    return options.case ? spaced : spaced.toLowerCase();
  }
  return LATIN.test(text) && !UNEVEN_SPACES.test(text) ? foldLetters(text, options) : foldAny(text, options);
}

/**
 * Printable letters and signs of which each is folded by itself: none composes with another. Not among them is the
 * capital I with a dot, which becomes two small characters.
 */
const LATIN = /^[\x20-\x7e\u00a1-\u012f\u0131-\u017f]*$/;
const BEYOND_ASCII = /[\u0080-\uffff]/g;

/** By option: the folded form of each Latin letter, made when it is first met. */
const LETTERS: readonly (string | undefined)[][] = [[], [], [], []];

function foldLetters(text: string, options: FoldOptions): string {
  const letters = LETTERS[optionsAt(options)]!;
  const cased = options.case ? text : text.toLowerCase();
  return cased.replace(BEYOND_ASCII, (letter) => (letters[letter.charCodeAt(0)] ??= foldAny(letter, options)));
}

/** What each code unit below 0x180 is folded to; 0 where it may not be folded by itself, or to several. */
export type LetterFolds = Uint16Array;
const FOLDS: (LetterFolds | undefined)[] = [];

/**
 * The folds of single letters. A text of such letters, without spaces but single ones between words, is folded where
 * each letter is.
 */
export const letterFolds = (options: FoldOptions): LetterFolds =>
  (FOLDS[optionsAt(options)] ??= Uint16Array.from({ length: 0x180 }, (_, unit) => {
    const letter = String.fromCharCode(unit);
    const folded = letter === ' ' ? ' ' : LATIN.test(letter) ? foldText(letter, options) : '';
    return folded.length === 1 ? folded.charCodeAt(0) : 0;
  }));

/** Texts to one pass: their letters stay in the cache. */
const TEXTS_AT_ONCE = 512;

/**
 * Folds many texts, and gives them joined by line ends, some hundred in a piece, with the length of each. Texts in Latin
 * letters are folded together.
 */
export function* foldJoined(
  texts: readonly string[],
  options: FoldOptions = {},
): Generator<{ readonly joined: string; readonly lengths: readonly number[] }> {
  for (let from = 0; from < texts.length; from += TEXTS_AT_ONCE) {
    const some = texts.slice(from, from + TEXTS_AT_ONCE);
    const joined = some.join('\n');
    const even = some.some((text) => text.includes('\n')) ? null : evenSpaces(joined, some.some(hasOuterSpace));
    const isTogether = even !== null && LATIN_LINES.test(even);
    const folded = isTogether ? foldLetters(even, options) : some.map((text) => foldText(text, options)).join('\n');
    // Folding a letter may add letters and never takes one away: as long as before together is as long each.
    const isAsLong = even === joined && folded.length === joined.length;
    const each = isTogether && isAsLong ? some : folded.split('\n');
    yield { joined: folded, lengths: each.map(({ length }) => length) };
  }
}

const hasOuterSpace = (line: string): boolean => line.startsWith(' ') || line.endsWith(' ');

/** Lines with single spaces between words, and none around them. */
function evenSpaces(lines: string, hasOuter: boolean): string {
  const single = lines.includes('  ') ? lines.replace(/ {2,}/g, ' ') : lines;
  return hasOuter ? single.replaceAll(' \n', '\n').replaceAll('\n ', '\n').replace(/^ | $/g, '') : single;
}

/** Several texts of such letters, one a line. */
const LATIN_LINES = /^[\n\x20-\x7e\u00a1-\u012f\u0131-\u017f]*$/;

function foldAny(text: string, options: FoldOptions): string {
  let folded = trimSpace(text).replace(INNER_SPACE, ' ').normalize('NFC');
  if (!options.case) folded = foldCase(folded);
  if (!options.accents) folded = folded.normalize('NFD').replace(MARKS, '');
  // Folding takes some letters apart, so that what it gives is composed once more: canonical caseless matching
  // (Unicode, section 3.13).
  return folded.normalize('NFC');
}

/**
 * Full default case folding (Unicode, CaseFolding.txt, statuses C and F) by way of the upper case, which expands what
 * folding expands (ß to ss). Dotless i has no folding of its own, and final sigma is a matter of context.
 */
export function foldCase(text: string): string {
  return text
    .split('ı')
    .map((part) => part.toLowerCase().toUpperCase().toLowerCase().replaceAll('ς', 'σ'))
    .join('ı');
}
