import type { CellValue } from './cell-value';
import { isoFromSerial } from './dates/date-serial';
import { formatNumber } from './number-format';
import { numberText } from './number-text';

/** A value in words, for messages and traces: numbers by the pattern given, dates in ISO 8601 form. */
export function shownText(value: CellValue, pattern: string | null): string {
  switch (value.kind) {
    case 'blank':
      return '';
    case 'number':
      return pattern === null ? numberText(value.number) : formatNumber(value.number, pattern);
    case 'date':
      return isoFromSerial(value.serial).replace('T', ' ');
    case 'logical':
      return value.logical ? 'TRUE' : 'FALSE';
    case 'error':
      return value.error;
    case 'text':
      return value.text;
  }
}
