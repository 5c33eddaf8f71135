import { isDecimalComma, withDecimalPoint, type Decimal } from '../../values/decimal-comma';
import { isoFromSerial } from '../../values/dates/date-serial';
import { readInput } from '../../values/read-input';

/** The types of threshold that may be typed: a number, or text or a logical where the condition takes it. */
export type Typed = number | string | boolean;

interface ThresholdReading {
  /** The number format of the field. */
  readonly format: string | null;
  readonly takes: 'number' | 'any' | 'date';
  /** What is typed before decimals; either, where a comma is one that can be nothing else. */
  readonly decimal?: Decimal | 'either';
}

/**
 * Reads a threshold that was typed in the format of the field: 70% over a percentage is 0.7, and so is 70 where the
 * field shows percentages. A day is returned as text in ISO form. Undefined where the text is not of an accepted type.
 */
export function readThreshold(
  text: string,
  { format, takes, decimal = takes === 'number' ? 'either' : '.' }: ThresholdReading,
): Typed | undefined {
  const hasComma = decimal === ',' || (decimal === 'either' && isDecimalComma(text.trim()));
  const { value, format: typedFormat } = readInput(hasComma ? withDecimalPoint(text) : text);
  if (takes === 'date') return value.kind === 'date' ? isoFromSerial(value.serial) : undefined;
  if (value.kind === 'number')
    return format?.includes('%') && !typedFormat?.includes('%')
      ? Number((value.number / 100).toPrecision(15))
      : value.number;
  if (takes === 'number' || value.kind === 'blank') return undefined;
  return value.kind === 'logical' ? value.logical : text.trim();
}
