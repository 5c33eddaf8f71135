import type { CellValue } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { readDate } from '../../values/dates/read-date';

/**
 * How two values of one type compare: negative, 0, positive; NaN where the types differ or there is nothing to compare.
 */
export function compareValues(value: CellValue, operand: CellValue): number {
  switch (value.kind) {
    case 'number':
      return operand.kind === 'number' ? value.number - operand.number : NaN;
    case 'date': {
      const serial =
        operand.kind === 'date' ? operand.serial : operand.kind === 'text' ? readDate(operand.text.trim()) : undefined;
      return serial === undefined ? NaN : value.serial - serial;
    }
    case 'text':
      return operand.kind === 'text' ? compareFolded(foldText(value.text), foldText(operand.text)) : NaN;
    case 'logical':
      return operand.kind === 'logical' ? Number(value.logical) - Number(operand.logical) : NaN;
    case 'blank':
    case 'error':
      return NaN;
  }
}

/** Two folded texts by code points: UTF-16 code units sort the characters beyond U+FFFF too early. */
export function compareFolded(one: string, other: string): number {
  if (one === other) return 0;
  const [a, b] = [Array.from(one), Array.from(other)];
  const differs = a.findIndex((point, at) => point !== b[at]);
  const pointAt = (text: readonly string[]): number => text[differs]?.codePointAt(0) ?? -1;
  return differs < 0 ? -1 : pointAt(a) - pointAt(b);
}

/** Absolute value of a number; other values as they are. */
export const magnitudeOf = (value: CellValue): CellValue =>
  value.kind === 'number' ? { kind: 'number', number: Math.abs(value.number) } : value;
