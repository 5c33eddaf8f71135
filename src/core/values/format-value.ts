import type { CellValue } from './cell-value';
import { formatDate, isDatePattern } from './dates/date-format';
import { formatByPattern } from './number-format';

/**
 * A number or date by a UTS #35 pattern of either sort; undefined where the pattern is neither. A number by a date
 * pattern is a serial date, and the other way round.
 */
export function formatValue(
  value: Extract<CellValue, { kind: 'number' | 'date' }>,
  pattern: string,
): string | undefined {
  const number = value.kind === 'number' ? value.number : value.serial;
  if (isDatePattern(pattern)) return formatDate(number, pattern);
  return formatByPattern(number, pattern);
}
