import type { Decimal } from '../core/values/decimal-comma';
import { LANGUAGE } from './texts';

/** Regions for which English has forms of numbers and dates (the locales en-XX of CLDR), by their codes of ISO 3166. */
export const REGIONS = [
  ...['AT', 'AU', 'BE', 'CA', 'CH', 'DE', 'DK', 'FI', 'GB', 'IE'],
  ...['IL', 'IN', 'NL', 'NZ', 'SE', 'SG', 'SI', 'US', 'ZA'],
] as const;

/** Where neither the account nor the browser names one of them: by the decimal sign of the browser's language. */
const USUAL_REGIONS: Record<Decimal, string> = { '.': 'GB', ',': 'BE' };

/**
 * The language of the texts with the region of numbers and dates, such as en-DE: the region that the account has, or
 * that of the first language that a browser asks for (the header Accept-Language, which names the likeliest first).
 */
export function localeFor(region: string | null, acceptLanguage: string | null): string {
  const tag = acceptLanguage?.split(/[,;]/)[0]?.trim() ?? '';
  const browsers = regionOf(tag);
  const wanted = region ?? browsers;
  return `${LANGUAGE}-${REGIONS.find((each) => each === wanted) ?? USUAL_REGIONS[browsers ? decimalSign(tag) : '.']}`;
}

/** The region of a language tag, the likeliest one where it names none; undefined for what is no tag. */
function regionOf(tag: string): string | undefined {
  try {
    return new Intl.Locale(tag).maximize().region;
  } catch {
    return undefined;
  }
}

/** The sign before decimals in a locale; of those that some regions use, the comma alone differs from the point. */
export const decimalSign = (locale: string): Decimal =>
  new Intl.NumberFormat(locale).formatToParts(0.5).some(({ type, value }) => type === 'decimal' && value === ',')
    ? ','
    : '.';
