import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { foldJoined, foldText } from './fold-text';

describe('texts that meet', () => {
  // Pairs after Unicode's CaseFolding.txt (statuses C and F) and the rules format's section on text equality; from
  // memory.
  test.each([
    ['Straße', 'STRASSE'],
    ['ẞ', 'ss'],
    ['ΣΊΣΥΦΟΣ', 'σίσυφος'],
    ['ﬁn', 'FIN'],
    ['Å', '\u212b'],
    ['K', '\u212a'],
    ['ſ', 's'],
    ['é', 'e\u0301'],
    ['Résumé', 'resume'],
    ['ŉ', 'ʼn'],
    ['ᾳ', 'ΑΙ'],
    ['  two \u00a0 words\u3000', 'Two Words'],
  ])('%j and %j', (one, other) => expect(foldText(one)).toBe(foldText(other)));
});

test.each([
  ['ı', 'i'],
  ['a b', 'ab'],
  ['o', '0'],
])('%j and %j stay apart', (one, other) => expect(foldText(one)).not.toBe(foldText(other)));

// Canonical caseless matching (Unicode, D145): a letter with two marks, in capitals and small, however it is composed.
test.each([
  ['\u03aa\u0301', '\u0390'],
  ['J\u030c', '\u01f0'],
])('%s and %s meet with their accents', (one, other) =>
  expect(foldText(one, { accents: true })).toBe(foldText(other, { accents: true })),
);

test('case and accents count when they are asked for', () => {
  expect(foldText('É', { case: true })).toBe('E');
  expect(foldText('É', { accents: true })).toBe('é');
  expect(foldText(' É ', { case: true, accents: true })).toBe('É');
});

// Canonically equivalent texts meet (Unicode, D145): taken apart they are folded as a whole, composed letter by letter.
test('a text of Latin letters meets the same text with its accents apart', () => {
  const letter = fc.integer({ min: 0x20, max: 0x17f }).map((code) => String.fromCharCode(code));
  const text = fc
    .array(fc.oneof(letter, fc.constant(' '), fc.constantFrom('a', 'Z', '9')))
    .map((list) => list.join(''));
  fc.assert(
    fc.property(text, fc.record({ case: fc.boolean(), accents: fc.boolean() }), (each, options) => {
      expect(foldText(each, options)).toBe(foldText(`\u3000${each.normalize('NFD')}\u3000`, options));
    }),
    { numRuns: 500 },
  );
});

test('many texts are folded as each by itself, whatever stands among them', () => {
  const piece = fc.constantFrom('Weir', 'ÉTANG', 'ß', ' ', '  ', '\n', '\u00a0', '\ufeff', 'Σ', 'İ', 'e\u0301', '9');
  const text = fc.array(piece, { maxLength: 4 }).map((pieces) => pieces.join(''));
  const options = fc.record({ case: fc.boolean(), accents: fc.boolean() });
  const latin = fc.constantFrom('Weir 9', ' ÉTANG', 'ß  ø', '');
  fc.assert(
    fc.property(
      fc.array(fc.oneof({ weight: 30, arbitrary: latin }, text), { maxLength: 600, size: 'max' }),
      options,
      (texts, how) => {
        const pieces = [...foldJoined(texts, how)];
        const folded = texts.map((each) => foldText(each, how));
        expect(pieces.flatMap(({ joined }) => joined.split('\n'))).toEqual(folded);
        expect(pieces.flatMap(({ lengths }) => lengths)).toEqual(folded.map(({ length }) => length));
      },
    ),
    { numRuns: 100 },
  );
});
