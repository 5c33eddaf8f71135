import { readInput } from '../../values/read-input';
import type { Table, TableProblem } from '../../values/table';

/**
 * Writes a table as an array of objects with the first row's cells as keys. Plain numbers, TRUE, FALSE and blanks
 * become JSON's own; everything else stays the text that was typed, so that reading it gives the same cells.
 */
export function writeJson({ rows }: Table): string | TableProblem {
  const [labels = [], ...records] = rows;
  const double = labels.find((label, at) => labels.indexOf(label) !== at);
  if (double !== undefined)
    return { place: '', message: `two fields are called "${double}"; JSON needs a name for each` };
  const objects = records.map((cells) =>
    Object.fromEntries(labels.map((label, column) => [label, jsonOf(cells[column] ?? '')])),
  );
  return `${JSON.stringify(objects, null, 2)}\n`;
}

function jsonOf(input: string): string | number | boolean | null {
  const { value } = readInput(input);
  if (value.kind === 'number' && String(value.number) === input) return value.number;
  if (value.kind === 'logical') return value.logical;
  return input === '' ? null : input;
}
