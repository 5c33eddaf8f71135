import { inDigits } from '../../values/counted';
import { BadFile } from '../bad-file';
import { LIMITS } from '../limits';
import type { Table } from '../../values/table';

/** The format name of files of records that were exported here. */
export const RECORDS_FORMAT = 'auxesis-records';

/**
 * Records as JSON objects become rows: their keys are the labels in order of first appearance. Texts are inputs like
 * typed ones; objects and lists inside a record are refused, and more labels than a sheet has fields. Throws a BadFile.
 */
export function tableOfRecords(records: Iterable<{ readonly record: unknown; readonly place: string }>): Table {
  const labels = new Map<string, number>();
  const rows: string[][] = [];
  for (const { record, place } of records) {
    if (typeof record !== 'object' || record === null || Array.isArray(record))
      throw new BadFile('expected an object with a value for each label', place);
    const cells: string[] = [];
    for (const [label, value] of Object.entries(record)) {
      if (!labels.has(label)) labels.set(label, labels.size);
      if (labels.size > LIMITS.fields)
        throw new BadFile(
          `there are more than ${inDigits(LIMITS.fields)} different labels; a sheet takes no more`,
          place,
        );
      cells[labels.get(label)!] = inputOf(label, value, place);
    }
    rows.push(cells);
  }
  const width = labels.size;
  const all = [[...labels.keys()], ...rows].map((cells) =>
    Array.from({ length: width }, (_, column) => cells[column] ?? ''),
  );
  return { rows: width === 0 && rows.length === 0 ? [] : all, width };
}

function inputOf(label: string, value: unknown, place: string): string {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  throw new BadFile(
    `"${label}" holds ${Array.isArray(value) ? 'a list' : 'an object'}; expected a text, a number, true, false or null`,
    place,
  );
}
