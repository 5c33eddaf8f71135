import fc from 'fast-check';
import { generateNKeysBetween } from 'fractional-indexing';
import { expect, test } from 'vitest';
import { FIRST_FAMILY } from '../../looks/first-family';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { mapRuleReferences } from '../shape/map-rule-references';
import { fieldByLabel, readRuleSet } from '../shape/read-rule-set';
import { bandLooks } from '../kinds/bands';
import { FIRST_LOOKS, NEARLY_LOOK } from '../kinds/key';
import { anyInput, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { advise, adviseOn, type ADVISERS } from './registry';
import { rulesOf } from '../shape/stored-rule';

const saved = Object.fromEntries(FIRST_FAMILY.map(({ id, light }) => [id, light]));

/** Advice on rules, as a file gives them, over rows whose first is the header; with what remains after each repair. */
function adviceOn(rows: readonly (readonly string[])[], ...rules: readonly object[]) {
  const read = readRuleSet({
    format: 'auxesis-rules',
    version: 1,
    looks: saved,
    rules: rules.map((rule, at) => ({ id: `r${at}`, look: { bold: true }, ...rule })),
  });
  if ('message' in read) throw new Error(read.message);
  const sheet = sheetFromTable({ rows, width: rows[0]!.length }, { header: true });
  const evaluation = new Evaluation(sheet, {}, { now: 46_089.6 });
  const keys = generateNKeysBetween(null, null, rules.length);
  read.rules.rules.forEach((rule, at) =>
    sheet.rules.set(rule.id, {
      id: rule.id,
      key: keys[at]!,
      rule: mapRuleReferences(rule, { field: fieldByLabel(sheet) }),
    }),
  );
  const look = () => {
    const stored = rulesOf(sheet);
    evaluation.setRules(stored.map(({ rule }) => rule));
    return advise({ evaluation, stored, saved });
  };
  const repair = (code: string) => {
    for (const operation of look().find((advice) => advice.code === code)!.repair!)
      evaluation.follow(sheet.apply(operation).effects);
    return look().map((advice) => advice.code);
  };
  return { advice: look(), codes: look().map(({ code }) => code), repair };
}

const column = (...inputs: readonly string[]) => [['v'], ...inputs.map((input) => [input])];
const reads = { fields: ['v'] };
const when = (is: string, to: unknown) => ({ reads, when: { kind: 'compare', is, to } });
const fill = (color: string, text?: string) => ({ look: { fill: color, ...(text ? { text } : {}) } });

/** Rules that show each code, over rows; those with a repair say nothing of it any more once it is made. */
const cases: Record<keyof typeof ADVISERS, { rows: string[][]; rules: object[]; mends: boolean }> = {
  'missing-field': {
    rows: column('1'),
    rules: [{ reads: { fields: ['w'] }, when: { kind: 'state', is: 'blank' } }],
    mends: false,
  },
  'failing-trial': {
    rows: column('1', '9'),
    rules: [{ ...when('<', 5), trials: [{ value: 5, expect: true }] }],
    mends: false,
  },
  'never-seen': {
    rows: column('1', '4', '9'),
    rules: [
      { ...when('<', 5), ...fill('#ffe3a3') },
      { ...when('<', 2), ...fill('#f7d3c8') },
    ],
    mends: true,
  },
  'same-rule': { rows: column('1', '9'), rules: [when('<', 5), when('<', 5)], mends: true },
  'scale-misfit': { rows: column('60%', '70%', '80%'), rules: [when('>=', 70)], mends: true },
  'numbers-as-text': { rows: column('1', "'7", '9'), rules: [when('>', 5)], mends: true },
  'header-read': {
    rows: column('1', '9'),
    rules: [{ ...when('>', 5), reads: { fields: ['v'], roles: ['header', 'record'] } }],
    mends: true,
  },
  'shifted-formula': {
    rows: column('1', '9', '3'),
    rules: [{ reads, when: { kind: 'formula', formula: '=A3>5' } }],
    mends: true,
  },
  unanchored: {
    rows: [
      ['v', 'w', 'limit'],
      ['1', '2', '3'],
      ['9', '8', '3'],
    ],
    rules: [{ reads: { fields: ['v', 'w'] }, when: { kind: 'formula', formula: '=A2>C2' } }],
    mends: true,
  },
  'formula-errors': {
    rows: column('1', 'x', '3'),
    rules: [{ reads, when: { kind: 'formula', formula: '=A2*2>3' } }],
    mends: false,
  },
  'ends-early': {
    rows: column('1', '9', '3'),
    rules: [{ reads: { cells: 'A2:A3' }, when: { kind: 'compare', is: '>', to: 5 } }],
    mends: true,
  },
  gap: { rows: column('4.995', '1', '7'), rules: [when('<=', 4.99), when('>=', 5)], mends: false },
  overlap: { rows: column('5', '1', '7'), rules: [when('<=', 5), when('>=', 5)], mends: false },
  'no-match': { rows: column('1', '2'), rules: [when('=', 3)], mends: false },
  'all-match': { rows: column('1', '2'), rules: [when('<', 3)], mends: false },
  'low-contrast': { rows: column('1', '9'), rules: [{ ...when('<', 5), ...fill('#bbbbbb', '#999999') }], mends: true },
  'alike-for-colour-blind': {
    rows: column('1', '9'),
    // A red and a green that people without the middle cones cannot tell apart (found by the simulation of Machado et
    // al.; no outside source).
    rules: [{ reads, when: { kind: 'bands', cuts: [5], looks: [{ fill: '#f3a3bb' }, { fill: '#87d1a3' }] } }],
    mends: false,
  },
  'colour-only': {
    rows: column('1', '9'),
    rules: [{ reads, when: { kind: 'bands', cuts: [5], looks: [{ fill: '#f7d3c8' }, { fill: '#cfe8dc' }] } }],
    mends: false,
  },
  'too-many-colours': {
    rows: column('1', '9'),
    rules: [
      {
        reads,
        when: {
          kind: 'bands',
          cuts: [1, 2, 3, 4, 5, 6],
          looks: ['#f6a5a5', '#f3c98b', '#e6e38a', '#a8e08f', '#8fe0d0', '#9bbcf5', '#d9a3f0'].map((color) => ({
            fill: color,
          })),
        },
      },
    ],
    mends: false,
  },
};

test.each(Object.entries(cases))('%s is found, in plain words', (code, { rows, rules }) => {
  const found = adviceOn(rows, ...rules).advice.find((advice) => advice.code === code);
  expect(found?.message).toMatch(/^.{20,}[.?]$/);
  expect(found?.rules.length).toBeGreaterThan(0);
  expect(found?.message).not.toMatch(/undefined|NaN|\[object/);
});

test.each(Object.entries(cases).filter(([, { mends }]) => mends))(
  '%s is not found any more once its repair is made',
  (code, { rows, rules }) => expect(adviceOn(rows, ...rules).repair(code)).not.toContain(code),
);

test('proposed looks differ in more than their hue', () => {
  const rows = column('1', '9');
  for (const count of [2, 3, 4, 5, 6]) {
    const cuts = Array.from({ length: count - 1 }, (_, at) => at + 2);
    expect(adviceOn(rows, { reads, when: { kind: 'bands', cuts, looks: bandLooks(count) } }).codes).not.toContain(
      'colour-only',
    );
  }
  const looks = { near: NEARLY_LOOK, ...FIRST_LOOKS };
  expect(adviceOn(rows, { reads, when: { kind: 'key', expect: ['oxygen'], near: 1, looks } }).codes).not.toContain(
    'colour-only',
  );
});

test('rules that make sense get no advice', () => {
  const rows = column('4.9', '5', '7.5', '', '9.2');
  expect(
    adviceOn(
      rows,
      { ...when('<', 5), ...fill('#f7d3c8', '#77200d') },
      { ...when('>=', 9), look: { fill: '#143f6b', text: '#ffffff', bold: true } },
    ).codes,
  ).toEqual([]);
});

test('a wider rule that takes the fill of a narrower one is found, whatever else of that remains', () => {
  const rows = [
    ['now', 'before'],
    ['95', '100'],
    ['70', '100'],
    ['100', '90'],
  ];
  const below = (times: number, look: object) => ({
    reads: { fields: ['now'] },
    when: { kind: 'compare', is: '<', to: { field: 'before', times } },
    look,
  });
  const found = adviceOn(rows, below(1, { fill: '#fde5ac' }), below(0.9, { fill: '#f7d3c8', bold: true }));
  expect(found.codes).toEqual(['never-seen']);
  expect(found.repair('never-seen')).toEqual([]);
});

// Against a look at every cell of the sheet.
test('only a rule that sets nothing anywhere is never seen', () => {
  let found = 0;
  fc.assert(
    fc.property(
      fc.array(anyInput, { minLength: 1, maxLength: 12 }),
      fc.uniqueArray(anyRule, { minLength: 2, maxLength: 4, selector: ({ id }) => id }),
      (inputs, rules) => {
        const evaluation = new Evaluation(makeSheet(inputs), {}, { now: 46_089.6 });
        evaluation.setRules(rules);
        const { sheet, resolver } = evaluation;
        const cells = sheet.fields.flatMap((_, column) => sheet.order.map((slot) => resolver.resolve(column, slot)));
        const stored = rules.map((rule, at) => ({ id: rule.id, key: `a${at}`, rule }));
        for (const { rules: named } of adviseOn('never-seen', { evaluation, saved, stored })) {
          found++;
          const at = rules.findIndex(({ id }) => id === named[0]);
          const set = new Set(
            cells.flatMap(({ from }) => [...from].flatMap(([name, by]) => (by === at ? [name] : []))),
          );
          expect(set.has('fill')).toBe(false);
          if (
            rules[at]!.look?.fill === undefined &&
            !['bands', 'category', 'key', 'scale'].includes(rules[at]!.when.kind)
          )
            expect([...set]).toEqual([]);
        }
      },
    ),
    { numRuns: 800 },
  );
  // About thirty times.
  expect(found).toBeGreaterThan(3);
});
