import { recordKey } from '../sheet/record-key';
import { readInput } from '../values/read-input';

/** Fields that are looked at, from the left, and the most that are taken together. */
const LOOKED_AT = 12;
const TOGETHER = 3;

/**
 * The fewest columns, from the left, whose values tell records apart: none of them is blank in any record, nor holds
 * numbers with decimals, which are measured rather than given. Empty where no three columns do.
 *
 * @param columns the columns that may be taken
 */
export function proposeKey(records: readonly (readonly string[])[], columns: readonly number[]): readonly number[] {
  const given = columns
    .filter((column) => records.every((record) => isGiven(record[column] ?? '')))
    .slice(0, LOOKED_AT);
  for (let size = 1; size <= TOGETHER; size++) {
    const found = combinations(given, size).find((taken) => tellsApart(records, taken));
    if (found) return found;
  }
  return [];
}

function isGiven(input: string): boolean {
  const { value, isFormula } = readInput(input);
  return (
    !isFormula &&
    value.kind !== 'blank' &&
    value.kind !== 'error' &&
    !(value.kind === 'number' && value.number % 1 !== 0)
  );
}

function tellsApart(records: readonly (readonly string[])[], columns: readonly number[]): boolean {
  const met = new Set<string>();
  for (const record of records) {
    const key = recordKey(columns.map((column) => record[column]))!;
    if (met.has(key)) return false;
    met.add(key);
  }
  return records.length > 0;
}

/** All choices of some of them, those with the leftmost first. */
function combinations(of: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return of.flatMap((first, at) => combinations(of.slice(at + 1), size - 1).map((rest) => [first, ...rest]));
}
