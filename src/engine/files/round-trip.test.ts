import { strFromU8, strToU8, unzipSync } from 'fflate';
import { generateNKeysBetween } from 'fractional-indexing';
import { describe, expect, test } from 'vitest';
import type { SheetContents } from '../../core/exchange/sheet-contents';
import { lookProperties, nestProperties, type Look } from '../../core/looks/look';
import { styleOfLook } from '../../core/exchange/workbook/written-sheet';
import { KINDS, type When } from '../../core/rules/kinds/registry';
import type { Evaluation } from '../../core/rules/evaluate/evaluation';
import type { Rule } from '../../core/rules/shape/rule';
import { newField } from '../../core/sheet/field';
import { plainTree } from '../../core/formula/resolve/plain-tree';
import { printFormula } from '../../core/formula/syntax/print-formula';
import { keepReferences, inRow } from '../../core/formula/resolve/keep-references';
import { openFile } from './open-file';
import { contentsOf, evaluated, SAVED, workbookOf } from '../../../test/support/workbook';

/** Every property that a look can have and a workbook can show. */
const FULL: Look = {
  fill: { from: '#f2e3b3', to: '#2f7f86', angle: 90 },
  text: '#20304a',
  bold: true,
  italic: true,
  underline: true,
  strike: true,
  number: '0.00',
  border: {
    top: { style: 'solid', width: 1, color: '#806040' },
    bottom: { style: 'double', width: 3, color: '#806040' },
  },
};
const LOOKS: readonly Look[] = [
  FULL,
  { fill: { pattern: 'dots', color: '#c85a3c', on: '#ffffff' } },
  { look: 'alarm' },
  { fill: '#d3e4f6', bold: false },
];

const VALUES = [
  ['Alder Weir', '4.9', '2026-03-08', '0.25', 'TRUE', "'0042", '=B2*2'],
  ['birch ford', '7', '2026-03-01', '0.5', 'FALSE', "'7", '=SUM($B$2:B3)'],
  ['Alder  Weir', '', '2026-02-27', '1', 'TRUE', '#N/A', '=IF(B4="";"none";B4)'],
  ['', 'sensor error', '', '-3', '', '12 kg', '=1/0'],
  ['Café Noir', '-12.5', '2026-03-09 14:30:00', '0.75', 'FALSE', "'=not", "='Oxygen'+1"],
  ['x~y*z?', '1E+21', '2025-12-31', '0', 'TRUE', 'a\nb', '=AVERAGE(Share)'],
];
const LABELS = ['Station', 'Oxygen', 'Day', 'Share', 'Good', 'Code', 'Sum'];

/** A sheet with values of every type, formulas, formatting, merged cells, a name, and the rules given. */
function sheetWith(
  whens: readonly {
    readonly when: When;
    readonly field: string;
    readonly paints?: Rule['paints'];
    readonly settles?: boolean;
  }[],
): SheetContents {
  const fieldKeys = generateNKeysBetween(null, null, LABELS.length);
  const fields = LABELS.map((_, at) =>
    newField(`f${at + 1}`, fieldKeys[at]!, { widthPx: 80 + at * 7, format: at === 3 ? '0.0%' : null }),
  );
  const keys = generateNKeysBetween(null, null, VALUES.length + 1);
  const cells = (row: readonly string[]) =>
    Object.fromEntries(row.flatMap((input, at) => (input === '' ? [] : [[`f${at + 1}`, input]])));
  const bare = [LABELS, ...VALUES].map((row, at) => ({
    id: `r${at + 1}`,
    key: keys[at]!,
    role: at ? ('record' as const) : ('header' as const),
    cells: cells(row),
  }));
  const { sheet } = evaluated({ fields, rows: bare, rules: [] });
  const rows = bare.map((row, at) => ({
    ...row,
    cells: Object.fromEntries(
      Object.entries(row.cells).map(([id, input]) => [
        id,
        keepReferences(input, sheet, inRow(sheet, sheet.slotAt(at))),
      ]),
    ),
    ...(at === 2
      ? {
          about: {
            heightPx: 40,
            styles: { f2: { fill: '#e8e0d0', align: 'center', wrap: true, number: '#,##0.00', sizePx: 20 } },
          },
        }
      : {}),
  })) as SheetContents['rows'];
  const ruleKeys = generateNKeysBetween(null, null, whens.length);
  const rules = whens.map(({ when, field, paints = 'cell', settles = false }, at) => {
    const rule: Rule = {
      id: `rule-${at + 1}`,
      name: `Rule ${at + 1}`,
      on: true,
      settles,
      reads: { fields: [field] },
      when,
      paints,
      look: LOOKS[at % LOOKS.length]!,
    };
    return {
      id: rule.id,
      key: ruleKeys[at]!,
      rule: KINDS[when.kind].outcomes === 'several' ? { ...rule, look: undefined } : rule,
    };
  }) as SheetContents['rules'];
  return {
    name: 'Readings',
    fields,
    rows,
    rules,
    parts: [
      { id: 'merge-1', kind: 'merge', top: 'r5', bottom: 'r6', left: 'f6', right: 'f6' },
      { id: 'limit', kind: 'name', name: 'Limit', refersTo: '=$B$2:$B$5' },
      { id: 'freeze', kind: 'freeze', through: 'f1' },
    ],
  };
}

/** Rules that the standard itself can say. */
const NATIVE: readonly { readonly when: When; readonly field: string; readonly settles?: boolean }[] = [
  ...(['<', '<=', '=', '!=', '>=', '>'] as const).map((is) => ({
    when: { kind: 'compare' as const, is, to: 5.5 },
    field: 'f2',
  })),
  { when: { kind: 'compare', is: 'between', to: [{ cell: 'B2' }, 7] }, field: 'f2', settles: true },
  { when: { kind: 'compare', is: 'outside', to: [-1, { formula: '=C2/10000' }] }, field: 'f2' },
  { when: { kind: 'compare', is: '=', to: 'Alder "Weir"' }, field: 'f1' },
  ...(['contains', 'lacks', 'starts', 'ends'] as const).map((is) => ({
    when: { kind: 'text' as const, is, any: ['We"ir'] },
    field: 'f1',
  })),
  ...(['blank', 'filled', 'error'] as const).map((is) => ({ when: { kind: 'state' as const, is }, field: 'f6' })),
  ...(
    [
      'today',
      'yesterday',
      'tomorrow',
      { last: 7, unit: 'day' },
      { this: 'week' },
      { previous: 'week' },
      { following: 'week' },
      { this: 'month' },
      { previous: 'month' },
      { following: 'month' },
    ] as const
  ).map((is) => ({ when: { kind: 'date' as const, is }, field: 'f3' })),
  { when: { kind: 'average', is: 'above' }, field: 'f2' },
  { when: { kind: 'average', is: 'at-or-below', deviations: 1 }, field: 'f2' },
  { when: { kind: 'rank', is: 'top', n: 2 }, field: 'f2' },
  { when: { kind: 'rank', is: 'bottom', percent: 40 }, field: 'f2' },
  { when: { kind: 'repeat', is: 'repeated' }, field: 'f1' },
  { when: { kind: 'repeat', is: 'unique' }, field: 'f1' },
  { when: { kind: 'formula', formula: '=AND($A2<>"";B2>0;{1;2}={1;2})' }, field: 'f2' },
  {
    when: {
      kind: 'scale',
      stops: [
        { at: 'least', color: '#c85a3c' },
        { at: { percentile: 50 }, color: '#f2e3b3' },
        { at: 12, color: '#2f7f86' },
      ],
      space: 'rgb',
    },
    field: 'f2',
  },
  {
    when: { kind: 'bar', from: 0, to: { percent: 90 }, color: '#5b7fa6', axis: 'none', showValue: false },
    field: 'f4',
  },
  {
    when: { kind: 'icons', set: 'arrows3', cuts: [{ at: { percent: 33 } }, { at: 0.6, edge: '>' }], reverse: true },
    field: 'f4',
  },
  {
    when: { kind: 'icons', set: 'moon5', cuts: [20, 40, 60, 80].map((percentile) => ({ at: { percentile } })) },
    field: 'f4',
  },
];

/** Rules with saved looks resolved, and nothing that a file cannot hold. */
const told = ({ rules }: SheetContents) =>
  rules.map(({ rule: { look, name: _, ...rest } }) => ({
    ...rest,
    look: look ? nestProperties(lookProperties(look, SAVED)) : undefined,
  }));

/** Rows with references by letters and numbers: files know no labels. */
function plainRows(contents: SheetContents): SheetContents['rows'] {
  const { sheet } = evaluated({ ...contents, rules: [] });
  return contents.rows.map((row, position) => ({
    ...row,
    cells: Object.fromEntries(
      Object.entries(row.cells).map(([field, input]) => [
        field,
        input.startsWith('=') ? printFormula(plainTree(input, sheet, position)!) : input,
      ]),
    ),
  }));
}

describe('a workbook of ISO/IEC 29500', () => {
  const before = sheetWith(NATIVE);
  const { bytes, report } = workbookOf(evaluated(before), 'ooxml');
  const after = contentsOf(bytes);

  test('values, formulas, formatting, merges, widths, names and what stays in view come back as they were', () => {
    expect(plainRows(after)).toEqual(plainRows(before));
    expect(after.fields).toEqual(before.fields);
    expect(after.parts).toEqual(before.parts);
  });
  test('every rule that the standard can say comes back equal', () => {
    expect(told(after)).toEqual(told(before));
    expect(report.rules.filter(({ as }) => as !== 'rule')).toEqual([]);
  });
});

test.each(['ooxml', 'odf'] as const)('a long sheet in groups comes back as it was: %s', (format) => {
  const keys = generateNKeysBetween(null, null, 2001);
  const fields = ['f1', 'f2', 'f3'].map((id, at) => newField(id, `a${at}`));
  const rows = keys.map((key, at): SheetContents['rows'][number] => ({
    id: `r${at}`,
    key,
    role: at ? 'record' : 'header',
    cells: at ? { f1: `Ørret & <pike> ${at}`, f2: String(at / 7), f3: '2026-03-08' } : { f1: 'A', f2: 'B', f3: 'C' },
    ...(at % 50 > 40 ? { about: { level: at % 50 > 45 ? 2 : 1 } } : {}),
  }));
  const after = contentsOf(workbookOf(evaluated({ fields, rows, rules: [], parts: [] }), format).bytes);
  const told = ({ cells, about }: SheetContents['rows'][number]) => [
    cells.f1,
    Number(cells.f2).toPrecision(12),
    cells.f3,
    about?.level,
  ];
  expect(after.rows.map((row) => told({ ...row, cells: byPlace(row.cells) }))).toEqual(rows.map(told));
});

/** Cells by the place of their field, whatever ids the import gives. */
const byPlace = (cells: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.values(cells).map((input, at) => [`f${at + 1}`, input]));

test('before the import, the rules of a workbook are listed as the sheet will name them', async () => {
  const { bytes } = workbookOf(evaluated(sheetWith(NATIVE)), 'ooxml');
  const file = await openFile(new File([bytes as BlobPart], 'readings.xlsx'), () => {});
  const said = file.preview().rules.map(({ sentence }) => sentence);
  expect(said).toEqual(contentsOf(bytes).rules.map(({ rule }) => rule.name));
  expect(said[0]).toBe('Oxygen is below 5.5');
});

test('a document of ISO/IEC 26300 is the same as one XML file, 3.1.2, and packed', () => {
  const before = sheetWith([{ when: { kind: 'compare', is: '<', to: 5.5 }, field: 'f2' }]);
  const { bytes } = workbookOf(evaluated(before), 'odf');
  const parts = unzipSync(bytes);
  const styles = /<office:styles>[\s\S]*<\/office:styles>/.exec(strFromU8(parts['styles.xml']!))![0];
  const flat = strFromU8(parts['content.xml']!)
    .replaceAll('office:document-content', 'office:document')
    .replace('<office:automatic-styles>', `${styles}<office:automatic-styles>`);
  expect(contentsOf(strToU8(flat))).toEqual(contentsOf(bytes));
});

test('values, formulas, formatting, merges, widths and names come back from a document of ISO/IEC 26300', () => {
  const before = sheetWith([]);
  const after = contentsOf(workbookOf(evaluated(before), 'odf').bytes);
  expect(plainRows(after)).toEqual(plainRows(before));
  expect(after.fields).toEqual(before.fields);
  expect(after.parts).toEqual(before.parts);
});

test('comparisons and formulas come back from a document of ISO/IEC 26300 equal', () => {
  // One rule a field, since the first that is true decides alone there.
  const before = sheetWith([
    { when: { kind: 'compare', is: 'between', to: [{ cell: 'B2' }, 7] }, field: 'f2' },
    { when: { kind: 'compare', is: '=', to: 'Alder "Weir"' }, field: 'f1' },
    { when: { kind: 'compare', is: '!=', to: -0.5 }, field: 'f4' },
    { when: { kind: 'formula', formula: '=OR(C2>$B$2;{1;2}={1;2})' }, field: 'f3' },
  ]);
  const plain = before.rules.map((stored, at) => ({
    ...stored,
    rule: { ...stored.rule, look: LOOKS[at % 2 ? 3 : 2]! },
  }));
  const after = contentsOf(workbookOf(evaluated({ ...before, rules: plain }), 'odf').bytes);
  // Rules come in the order of the cells that have them; each keeps its name.
  const byName = ({ rules }: Pick<SheetContents, 'rules'>) =>
    Object.fromEntries(
      rules.map(({ rule: { id: _, look, ...rest } }) => [
        rest.name,
        { ...rest, look: nestProperties(lookProperties(look!, SAVED)) },
      ]),
    );
  expect(byName(after)).toEqual(byName({ rules: plain }));
});

/** The shown text of every cell, as far as a workbook can show it. */
function looksOf({ sheet, resolver }: Evaluation): object[] {
  return sheet.order.flatMap((slot) =>
    sheet.fields.map((_, column) => styleOfLook(new Map([...resolver.resolve(column, slot).properties]))),
  );
}

// Each kind's own examples, as one field of a sheet: its rule is written as a rule, as formulas or as plain formatting,
// and read again. Left out are what no formula of other programs can tell: text with accents from text without, a
// number from a date.
const EXAMPLES = Object.entries(KINDS).flatMap(([kind, { examples }]) =>
  (examples as readonly { readonly says: string; readonly when: When; readonly inputs: readonly string[] }[]).map(
    (example) => ({
      kind,
      ...example,
      inputs: example.inputs.filter(
        (input) => (kind !== 'date' || !/^[\d.]+$/.test(input)) && (kind !== 'text' || /^[ -~]*$/.test(input)),
      ),
    }),
  ),
);

describe.each(['ooxml', 'odf'] as const)('a rule in %s gives the looks that it gave before', (format) => {
  test.each(EXAMPLES)('$kind: $says', ({ when, inputs }) => {
    const fields = [newField('f1', 'a0'), newField('f2', 'a1')];
    const keys = generateNKeysBetween(null, null, inputs.length + 1);
    const rows = keys.map((key, at) => ({
      id: `r${at + 1}`,
      key,
      role: at ? ('record' as const) : ('header' as const),
      cells: {
        f2: at ? `row ${at}` : 'Row',
        ...(at && inputs[at - 1] === '' ? {} : { f1: at ? inputs[at - 1]! : 'Value' }),
      },
    }));
    const rule: Rule = {
      id: 'rule-1',
      name: 'Rule',
      on: true,
      settles: false,
      reads: { fields: ['f1'] },
      when,
      paints: 'cell',
      look: { fill: '#d3e4f6', bold: true },
    };
    const before = evaluated({
      fields,
      rows,
      rules: [
        { id: 'rule-1', key: 'a0', rule: KINDS[when.kind].outcomes === 'several' ? { ...rule, look: {} } : rule },
      ],
    });
    if (before.activeRules[0]!.problem) return;
    const { bytes, report } = workbookOf(before, format);
    const contents = contentsOf(bytes);
    const after = evaluated(contents);
    // Plain formatting is under all rules: of the cell, not of one of them.
    const styles = after.sheet.order.flatMap((slot) =>
      after.sheet.fields.map((_, column) => after.sheet.styleAt(column, slot) ?? {}),
    );
    const shown = looksOf(after).map((look, at) => ({
      ...(report.rules[0]!.as === 'formatting' ? onlyLook(styles[at]!) : {}),
      ...look,
    }));
    expect(shown).toEqual(looksOf(before));
  });
});

/** Number formats are those of the values as they were typed. */
const onlyLook = ({ number: _, ...look }: { readonly number?: string }): object => look;

test('a rule over ranges of another shape keeps its formula for each of them, whichever cell a reader takes for the first', () => {
  // Column A from row 4 on, column C from row 2 on: the corner of the box around them is in neither.
  const keys = generateNKeysBetween(null, null, 7);
  const rows = keys.map((key, at) => ({
    id: `r${at + 1}`,
    key,
    role: at ? ('record' as const) : ('header' as const),
    cells: {
      f1: at ? String(at) : 'One',
      f2: at ? String(at * 2) : 'Two',
      f3: at ? String(7 - at) : 'Three',
      f4: at ? '5' : 'Four',
    },
  }));
  const rule: Rule = {
    id: 'rule-1',
    name: 'Rule',
    on: true,
    settles: false,
    reads: { cells: 'A4:A7 C2:C5' },
    when: { kind: 'formula', formula: '=A4+B4>9', at: 'A4' },
    paints: 'cell',
    look: { fill: '#d3e4f6' },
  };
  const before = evaluated({
    fields: ['f1', 'f2', 'f3', 'f4'].map((id, at) => newField(id, `a${at}`)),
    rows,
    rules: [{ id: 'rule-1', key: 'a0', rule }],
  });
  const matched = (evaluation: Evaluation) =>
    evaluation.sheet.order.flatMap((slot, position) =>
      evaluation.sheet.fields.flatMap((_, column) =>
        evaluation.resolver.resolve(column, slot).properties.size ? `${'ABCD'[column]!}${position + 1}` : [],
      ),
    );
  // By hand: A is n and B is 2n in record n, C is 7 - n beside D, which is 5.
  expect(matched(before)).toEqual(['C2', 'C3', 'A5', 'A6', 'A7']);
  for (const format of ['ooxml', 'odf'] as const)
    expect(matched(evaluated(contentsOf(workbookOf(before, format).bytes)))).toEqual(matched(before));
});
