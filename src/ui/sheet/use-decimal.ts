import { useLocale } from 'use-intl';
import type { Decimal } from '../../core/values/decimal-comma';
import { decimalSign } from '../../texts/locale';

/** The sign before decimals where this person is at home. */
export const useDecimal = (): Decimal => decimalSign(useLocale());
