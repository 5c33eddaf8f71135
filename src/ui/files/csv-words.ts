import type { Decimal } from '../../core/exchange/exported-file';
import { SEPARATORS, type Separator } from '../../core/exchange/csv/csv-rows';

const WORDS: Readonly<Record<Separator, string>> = {
  ',': 'Comma',
  ';': 'Semicolon',
  '\t': 'Tab',
  '|': 'Vertical bar',
};

/** The separators to choose from. */
export const SEPARATOR_CHOICES = SEPARATORS.map((value) => ({ value, label: WORDS[value] }));

/** The signs that may divide decimals, to choose from. */
export const DECIMAL_CHOICES: readonly { readonly value: Decimal; readonly label: string }[] = [
  { value: '.', label: 'Point: 1,234.5' },
  { value: ',', label: 'Comma: 1.234,5' },
];
