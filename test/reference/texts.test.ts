import { describe, expect, test } from 'vitest';
import { foldText } from '../../src/core/values/fold-text';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';

const everyLetter = function* (): Generator<string> {
  for (let point = 0; point <= 0x1ffff; point++) {
    if (point >= 0xd800 && point <= 0xdfff) continue;
    const character = String.fromCodePoint(point);
    if (/\p{L}/u.test(character)) yield character;
  }
};

/*
 * ECMA-262 compares with the flags i and u by the simple foldings of Unicode's CaseFolding.txt; the engine has them
 * from ICU. Two letters that meet there must meet in a rule, for every letter of Unicode in the first two planes.
 */
describe('case folding against the engine’s own tables', () => {
  test('each letter meets its lower, upper and title case wherever simple folding says so', () => {
    let pairs = 0;
    for (const letter of everyLetter()) {
      const same = new RegExp(`^${letter}$`, 'iu');
      for (const other of [letter.toLowerCase(), letter.toUpperCase()]) {
        if (other === letter || !same.test(other)) continue;
        pairs++;
        if (foldText(letter) !== foldText(other)) expect.fail(`${letter} and ${other} should meet`);
      }
    }
    expect(pairs).toBeGreaterThan(2000);
  });

  test('folding what is folded changes nothing', () => {
    for (const letter of everyLetter())
      if (foldText(foldText(letter)) !== foldText(letter)) expect.fail(`${letter} folds twice`);
  });
});

// Lines of Unicode's CaseFolding.txt with status F (one letter becomes several); from memory.
test.each([
  ['\u00df', 'ss'],
  ['\u0130', 'i\u0307'],
  ['\u0149', '\u02bcn'],
  ['\u01f0', 'j\u030c'],
  ['\u0390', '\u03b9\u0308\u0301'],
  ['\u0587', '\u0565\u0582'],
  ['\u1e96', 'h\u0331'],
  ['\u1e9e', 'ss'],
  ['\u1f50', '\u03c5\u0313'],
  ['\ufb03', 'ffi'],
  ['\ufb13', '\u0574\u0576'],
])('the full folding of %s', (letter, folded) =>
  expect(foldText(letter, { accents: true })).toBe(folded.normalize('NFC')),
);

/** How many of some texts a condition matches. */
function matches(when: When, texts: readonly string[]): number {
  const sheet = sheetFromTable({ rows: [['Text'], ...texts.map((text) => [text])], width: 1 }, { header: true });
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([
    {
      id: 'r',
      name: 'R',
      on: true,
      settles: false,
      reads: { fields: [sheet.fields[0]!.id] },
      when,
      paints: 'cell',
      look: { bold: true },
    },
  ]);
  return evaluation.activeRules[0]!.shownCount();
}

/*
 * Patterns over which engines that backtrack take exponential time: the classes that OWASP's page on regular expression
 * denial of service lists, and the pattern of the RE2 papers. Each text would keep a backtracking engine busy for
 * longer than the age of the universe.
 */
describe('patterns that are hard for engines which backtrack', () => {
  const long = 'a'.repeat(50_000);
  test.each([
    ['(a+)+$', `${long}!`, 0],
    ['([a-zA-Z]+)*$', `${long}!`, 1],
    ['^(a|aa)+$', `${long}!`, 0],
    ['^(a|a?)+$', `${long}!`, 0],
    ['(.*a){12}b', long, 0],
    [`${'a?'.repeat(30)}${'a'.repeat(30)}`, 'a'.repeat(30), 1],
    ['^(([a-z])+.)+[A-Z]([a-z])+$', long, 0],
  ])('%s', (pattern, text, count) =>
    expect(matches({ kind: 'text', is: 'pattern', any: [pattern], case: true }, [text])).toBe(count),
  );

  test('a cell of a million letters', () =>
    expect(
      matches({ kind: 'text', is: 'pattern', any: ['(x+x+)+y', 'b$'] }, [
        'x'.repeat(1_000_000),
        `${'x'.repeat(999_999)}b`,
      ]),
    ).toBe(1));
});
