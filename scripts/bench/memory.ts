// A sheet made of 1,000,000 typed numbers, nearly all of them different: time and memory, beside typed arrays and row
// objects of the same numbers in the same run. Then the memory of 1,000,000 cells of each sort, and of what each rule
// keeps of them.
import { randomLcg } from 'd3-random';
import { figure, ms } from './figures.mjs';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';
import type { Sheet } from '../../src/core/sheet/sheet';
import { isoFromSerial } from '../../src/core/values/dates/date-serial';
import { ruleOver, sheetOf } from './one-field';

const RECORDS = 50_000;
const FIELDS = Array.from({ length: 20 }, (_, at) => `f${at}`);
const random = randomLcg(3);
const inputs = FIELDS.map(() => Array.from({ length: RECORDS }, () => String(Math.round(random() * 1e7) / 100)));

/** Bytes that are held, after what nobody holds is gone. */
function held(): number {
  // What arrays hold outside of the heap is freed with the next collection.
  for (let time = 0; time < 4; time++) globalThis.gc?.();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return heapUsed + arrayBuffers;
}

/** What is made, so that it is still held when it is measured. */
const made: unknown[] = [];

function measured(make: () => unknown): { readonly took: number; readonly bytes: number } {
  const before = held();
  const began = performance.now();
  made.push(make());
  const took = performance.now() - began;
  return { took, bytes: (held() - before) / (RECORDS * FIELDS.length) };
}

const arrays = measured(() => inputs.map((list) => Float64Array.from(list, Number)));
const objects = measured(() =>
  Array.from({ length: RECORDS }, (_, row) =>
    Object.fromEntries(FIELDS.map((field, column) => [field, { kind: 'number', value: Number(inputs[column]![row]) }])),
  ),
);
const sheet = measured(() => sheetOf(FIELDS, RECORDS, (row) => inputs.map((list) => list[row]!)));
const bytes = (value: number): string => `${value.toFixed(0)} bytes`;

figure(
  'a sheet of 1,000,000 numbers',
  ms(sheet.took),
  `typed arrays ${ms(arrays.took)}, row objects ${ms(objects.took)}`,
  `${(sheet.took / arrays.took).toFixed(1)}x the limit (aim 3x)`,
);
figure(
  'memory a cell',
  bytes(sheet.bytes),
  `typed arrays ${bytes(arrays.bytes)}, row objects ${bytes(objects.bytes)}`,
  'aim 24 bytes',
);
if (made.length !== 3) throw new Error('what was measured is not held');

/** The inputs of cells of each sort. */
const SORTS: Readonly<Record<string, (row: number, field: number) => string>> = {
  'nothing in them: rows alone': () => '',
  'numbers, nearly all different': (row, field) => inputs[field]?.[row] ?? '',
  'numbers typed with two decimals': (row, field) => Number(inputs[field]?.[row]).toFixed(2),
  'percentages, 101 different': (row, field) => `${(row * 7 + field) % 101}%`,
  'dates, 1,000 different': (row, field) => isoFromSerial(46_000 - ((row * 7 + field) % 1000)),
  'texts, 11 different': (row) => `Station ${row % 11}`,
  'texts of 12 letters, all different': (row, field) => `S-${String(field).padStart(2, '0')}-${row + 1_000_000}`,
  'formulas, the same in all': () => '=1+1',
};

const CELLS = RECORDS * FIELDS.length;

function madeOf(sort: string): Sheet {
  const inputAt = SORTS[sort] ?? (() => '');
  return sheetOf(FIELDS, RECORDS, (row) => FIELDS.map((_, field) => inputAt(row, field)));
}

/** Bytes a cell that something takes once it is made. */
function bytesOf(make: () => unknown): string {
  const kept: unknown[] = [];
  const before = held();
  kept.push(make());
  const bytes = (held() - before) / CELLS;
  if (kept.length !== 1) throw new Error('what was measured is not held');
  return bytes.toFixed(1).padStart(8);
}

/** Conditions, and the sort of cells that they are measured over. */
const RULES: readonly (readonly [says: string, sort: string, when: When])[] = [
  ['threshold', 'numbers, nearly all different', { kind: 'compare', is: '>', to: 50_000 }],
  ['average', 'numbers, nearly all different', { kind: 'average', is: 'above', deviations: 1.5 }],
  ['top 10 %', 'numbers, nearly all different', { kind: 'rank', is: 'top', percent: 10 }],
  ['bands', 'numbers, nearly all different', { kind: 'bands', cuts: [50_000], looks: [null, null] }],
  ['formula', 'numbers, nearly all different', { kind: 'formula', formula: '=A1>B1' }],
  ['repeats', 'numbers, nearly all different', { kind: 'repeat', is: 'repeated' }],
  ['repeats', 'texts of 12 letters, all different', { kind: 'repeat', is: 'repeated' }],
  ['contains', 'texts of 12 letters, all different', { kind: 'text', is: 'contains', any: ['7'] }],
  ['repeats', 'texts, 11 different', { kind: 'repeat', is: 'repeated' }],
];

/** What a rule over each field keeps, of cells that no rule has been asked of. */
function bytesOfRule(sort: string, when: When): string {
  const own = madeOf(sort);
  const evaluation = new Evaluation(own, {});
  const bytes = bytesOf(() => evaluation.setRules(FIELDS.map((field) => ruleOver(field, when, field))));
  if (evaluation.activeRules.some(({ problem }) => problem) || own.rowCount !== RECORDS)
    throw new Error('this rule does not work');
  return bytes;
}

console.log('memory of 1,000,000 cells, 50,000 records of 20 fields, in bytes a cell');
for (const sort of Object.keys(SORTS)) {
  console.log(`  ${sort.padEnd(44)}${bytesOf(() => madeOf(sort))}`);
  for (const [says, over, when] of RULES)
    if (over === sort) console.log(`    and a rule keeps: ${says.padEnd(24)}${bytesOfRule(sort, when)}`);
}
