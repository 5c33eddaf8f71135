import type { CellValue } from './cell-value';
import { readInput, type ReadOptions } from './read-input';
import { shownText } from './shown-text';

/**
 * Something that could be typed for a cell to hold a value: `readInput` reads it back, numbers and times of day as they
 * are shown.
 */
export function valueInput(value: CellValue, options: ReadOptions = {}): string {
  const shown = shownText(value, null);
  if (value.kind !== 'text' || value.text === '') return shown;
  const read = readInput(value.text, options);
  return read.isFormula || read.value.kind !== 'text' || read.value.text !== value.text ? `'${value.text}` : value.text;
}
