import { BLANK, type CellValue, isErrorWord } from './cell-value';
import { readDate, type DateOrder } from './dates/read-date';
import { readNumber } from './read-number';
import { trimSpace } from './trim-space';

export interface ReadOptions {
  readonly dates?: DateOrder;
  /** True for fields and rows whose cells are text whatever they look like. */
  readonly asText?: boolean;
}

export interface CellContent {
  readonly value: CellValue;
  /** The number format implied by the way the number was typed, or null. */
  readonly format: string | null;
  /** True for a formula: it has no value until it is calculated. */
  readonly isFormula?: boolean;
}

const SPACE_ONLY = /^\p{White_Space}*$/u;

/**
 * Reads the input of a cell into a value. Never fails: the fallback is text. Outer Unicode white space is ignored for
 * everything but text, which is kept exactly.
 */
export function readInput(input: string, options: ReadOptions = {}): CellContent {
  if (SPACE_ONLY.test(input)) return { value: BLANK, format: null };
  if (input.startsWith("'")) return text(input.slice(1));
  if (options.asText) return text(input);
  const trimmed = trimSpace(input);
  if (trimmed.startsWith('=')) return { value: BLANK, format: null, isFormula: true };
  const number = readNumber(trimmed);
  if (number) return { value: { kind: 'number', number: number.number }, format: number.format };
  const serial = readDate(trimmed, options.dates);
  if (serial !== undefined) return { value: { kind: 'date', serial }, format: null };
  const upper = trimmed.toUpperCase();
  if (upper === 'TRUE' || upper === 'FALSE')
    return { value: { kind: 'logical', logical: upper === 'TRUE' }, format: null };
  if (isErrorWord(upper)) return { value: { kind: 'error', error: upper }, format: null };
  return text(input);
}

const text = (typed: string): CellContent => ({
  value: SPACE_ONLY.test(typed) ? BLANK : { kind: 'text', text: typed },
  format: null,
});
