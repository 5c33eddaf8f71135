import { readFileSync } from 'node:fs';
import { generateNKeysBetween } from 'fractional-indexing';
import { describe, expect, test } from 'vitest';
import { exportSource } from '../export-source';
import { recordsOfSheet, type ToldRecord } from './records-of-sheet';
import { recordsPage, type RecordsWanted } from './records-page';
import type { Rule } from '../../rules/shape/rule';
import { newField } from '../../sheet/field';
import { evaluated, SAVED } from '../../../../test/support/workbook';

/*
 * Pages of records over an open data set ("cars" of vega-datasets, 406 records with gaps), beside the array methods of
 * JavaScript over the same objects.
 */
interface Car {
  readonly Name: string;
  readonly Origin: string;
  readonly Horsepower: number | null;
  readonly Year: string;
}
const cars = JSON.parse(
  readFileSync(new URL('../../../../node_modules/vega-datasets/data/cars.json', import.meta.url), 'utf8'),
) as Car[];
const LABELS = ['Name', 'Origin', 'Horsepower', 'Year'] as const;
const keys = generateNKeysBetween(null, null, cars.length + 1);
const rule: Rule = {
  id: 'strong',
  name: 'Strong',
  on: true,
  settles: false,
  reads: { fields: ['f3'] },
  when: { kind: 'compare', is: '>', to: 200 },
  paints: 'cell',
  look: { look: 'alarm' },
};
const evaluation = evaluated({
  fields: LABELS.map((_, at) => newField(`f${at + 1}`, `a${at}`)),
  rows: [Object.fromEntries(LABELS.map((label) => [label, label])) as unknown as Car, ...cars].map((car, at) => ({
    id: `r${at}`,
    key: keys[at]!,
    role: at ? 'record' : 'header',
    cells: Object.fromEntries(
      LABELS.flatMap((label, column) => (car[label] === null ? [] : [[`f${column + 1}`, String(car[label])]])),
    ),
  })),
  rules: [{ id: rule.id, key: 'a0', rule }],
});
const source = exportSource(evaluation, { name: 'Cars', looks: SAVED });

/** Names of all records on all pages. */
function namesOf(wanted: Partial<RecordsWanted>): string[] {
  const names: string[] = [];
  let after: string | null = null;
  do {
    const page = recordsPage(
      source,
      { limit: 37, where: [], looks: false, ...wanted, ...(after === null ? {} : { after }) },
      7,
    );
    expect(page.records.length).toBeLessThanOrEqual(37);
    names.push(...page.records.map(({ values }) => String(values.Name)));
    after = page.next;
  } while (after !== null);
  return names;
}
const namesWhere = (holds: (car: Car) => boolean) => cars.filter(holds).map(({ Name }) => Name);

describe('records page by page', () => {
  test.each<[readonly string[], (car: Car) => boolean]>([
    [[], () => true],
    [['Horsepower>200'], ({ Horsepower }) => Horsepower !== null && Horsepower > 200],
    [['Horsepower<=65'], ({ Horsepower }) => Horsepower !== null && Horsepower <= 65],
    [['Horsepower!=150'], ({ Horsepower }) => Horsepower !== null && Horsepower !== 150],
    [['Horsepower='], ({ Horsepower }) => Horsepower === null],
    [['horsepower!='], ({ Horsepower }) => Horsepower !== null],
    [['Origin=europe'], ({ Origin }) => Origin === 'Europe'],
    [['Name~DIESEL'], ({ Name }) => Name.includes('diesel')],
    [['Year<1971-01-01', 'Origin=Japan'], ({ Year, Origin }) => Year < '1971-01-01' && Origin === 'Japan'],
  ])('where %j', (where, holds) => {
    const names = namesWhere(holds);
    expect(names.length).toBeGreaterThan(0);
    expect(namesOf({ where })).toEqual(names);
  });

  test.each(['strong', 'Strong', 'STRONG'])('that the rule %s paints, with the look', (name) => {
    expect(namesOf({ rule: name })).toEqual(namesWhere(({ Horsepower }) => (Horsepower ?? 0) > 200));
    const [first] = recordsPage(source, { limit: 1, where: [], rule: name, looks: true }, 7).records;
    expect(first!.looks).toEqual({
      Horsepower: { look: expect.objectContaining({ fill: '#f7d3c8' }) as object, rules: ['Strong'] },
    });
  });

  test('a file of all records has the values of each, and the looks of those that a rule paints', () => {
    const file = JSON.parse([...recordsOfSheet(source).parts].join('')) as { records: readonly ToldRecord[] };
    expect(file.records.map(({ row }) => row)).toEqual(cars.map((_, at) => at + 2));
    expect(file.records.map(({ values }) => values)).toEqual(
      cars.map(({ Name, Origin, Horsepower, Year }) => ({ Name, Origin, Horsepower, Year })),
    );
    expect(file.records.map(({ looks }) => Object.keys(looks))).toEqual(
      cars.map(({ Horsepower }) => ((Horsepower ?? 0) > 200 ? ['Horsepower'] : [])),
    );
  });

  test('labels are anybody’s: one that every object has is one like others', () => {
    const fields = ['__proto__', 'constructor'].map((label, at) => ({ label, id: `p${at}` }));
    const odd = evaluated({
      fields: fields.map(({ id }, at) => newField(id, `a${at}`)),
      rows: [
        { id: 'h', key: 'a0', role: 'header', cells: Object.fromEntries(fields.map(({ id, label }) => [id, label])) },
        { id: 'r', key: 'a1', role: 'record', cells: { p0: '1', p1: 'x' } },
      ],
      rules: [],
    });
    const [record] = recordsPage(
      exportSource(odd, { name: 'Odd', looks: SAVED }),
      { limit: 1, where: [], looks: true },
      7,
    ).records;
    expect(Object.entries(record!.values)).toEqual([
      ['__proto__', 1],
      ['constructor', 'x'],
    ]);
  });

  test.each([
    [{ where: ['Horsepower'] }, 'is no condition'],
    [{ where: ['Torque>3'] }, 'there is no field "Torque"'],
    [{ rule: 'weak' }, 'there is no rule "weak"'],
    [{ after: 'gone' }, 'begin again without a cursor'],
  ])('%j is refused in words', (wanted, words) => {
    expect(() => recordsPage(source, { limit: 5, where: [], looks: false, ...wanted }, 7)).toThrow(words);
  });
});
