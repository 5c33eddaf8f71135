import { foldText } from '../values/fold-text';
import { readInput } from '../values/read-input';
import { shownText } from '../values/shown-text';

/**
 * The key of a record: equal values give the same key however they were typed: 5 and 5.0, `Alder weir` and ` ALDER
 * WEIR`. Null where all are blank.
 */
export function recordKey(inputs: readonly (string | null | undefined)[]): string | null {
  const parts = inputs.map((input) => {
    const { value } = readInput(input ?? '');
    return value.kind === 'blank' ? '' : `${value.kind} ${foldText(shownText(value, null))}`;
  });
  return parts.every((part) => part === '') ? null : JSON.stringify(parts);
}
