// A sheet made of 1,000,000 typed numbers, nearly all of them different: time and memory, beside typed arrays and row
// objects of the same numbers in the same run.
import { randomLcg } from 'd3-random';
import { figure, ms } from './figures.mjs';
import { sheetOf } from './one-field';

const RECORDS = 50_000;
const FIELDS = Array.from({ length: 20 }, (_, at) => `f${at}`);
const random = randomLcg(3);
const inputs = FIELDS.map(() => Array.from({ length: RECORDS }, () => String(Math.round(random() * 1e7) / 100)));

/** Bytes that are held, after what nobody holds is gone. */
function held(): number {
  globalThis.gc?.();
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
