import { useTranslations } from 'use-intl';
import { keysOf } from '../../core/values/typed-keys';
import type { Decimal } from '../../core/values/decimal-comma';
import { SEPARATORS, type Separator } from '../../core/exchange/csv/csv-rows';

const SEPARATOR_WORDS = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'verticalBar',
} as const satisfies Record<Separator, string>;

const DECIMAL_WORDS = {
  '.': 'point12345',
  ',': 'comma12345',
} as const satisfies Record<Decimal, string>;

/** The separators, and the signs that may divide decimals, to choose from. */
export function useCsvChoices() {
  const t = useTranslations('files');
  return {
    separators: SEPARATORS.map((value) => ({ value, label: t(SEPARATOR_WORDS[value]) })),
    decimals: keysOf(DECIMAL_WORDS).map((value) => ({ value, label: t(DECIMAL_WORDS[value]) })),
  };
}
