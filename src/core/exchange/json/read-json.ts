import type { Table, TableProblem } from '../table';

/**
 * Reads an array of objects: each is a record, its keys are the labels in order of first appearance. Texts are inputs like
 * typed ones; objects and lists inside a record are problems.
 */
export function readJson(text: string): Table | TableProblem {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch (error) {
    return { place: '', message: `not JSON: ${(error as Error).message}` };
  }
  if (!Array.isArray(parsed)) return { place: '', message: 'expected an array of objects, one a record' };
  const labels = new Map<string, number>();
  const records: string[][] = [];
  for (const [at, record] of (parsed as unknown[]).entries()) {
    const place = `record ${at + 1}`;
    if (typeof record !== 'object' || record === null || Array.isArray(record))
      return { place, message: 'expected an object with a value for each label' };
    const cells: string[] = [];
    for (const [label, value] of Object.entries(record)) {
      const input = inputOf(value);
      if (input === undefined)
        return {
          place,
          message: `"${label}" holds ${Array.isArray(value) ? 'a list' : 'an object'}; expected a text, a number, true, false or null`,
        };
      if (!labels.has(label)) labels.set(label, labels.size);
      cells[labels.get(label)!] = input;
    }
    records.push(cells);
  }
  const width = labels.size;
  const rows = [[...labels.keys()], ...records].map((cells) => Array.from({ length: width }, (_, column) => cells[column] ?? ''));
  return { rows: width === 0 && records.length === 0 ? [] : rows, width };
}

function inputOf(value: unknown): string | undefined {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  return typeof value === 'string' || typeof value === 'number' ? String(value) : undefined;
}
