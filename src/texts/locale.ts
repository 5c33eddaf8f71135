import { LANGUAGE } from './texts';

/** Regions for which English has forms of numbers and dates (the locales en-XX of CLDR), by their codes of ISO 3166. */
export const REGIONS = [
  ...['AT', 'AU', 'BE', 'CA', 'CH', 'DE', 'DK', 'FI', 'GB', 'IE'],
  ...['IL', 'IN', 'NL', 'NZ', 'SE', 'SG', 'SI', 'US', 'ZA'],
] as const;

/** Where neither the account nor the browser names one of them. */
const USUAL_REGION = 'GB';

/**
 * The language of the texts with the region of numbers and dates, such as en-DE: the region that the account has, or
 * that of the first language that a browser asks for (the header Accept-Language, which names the likeliest first).
 */
export function localeFor(region: string | null, acceptLanguage: string | null): string {
  const wanted = region ?? regionOf(acceptLanguage?.split(/[,;]/)[0]?.trim() ?? '');
  return `${LANGUAGE}-${REGIONS.find((each) => each === wanted) ?? USUAL_REGION}`;
}

/** The region of a language tag, the likeliest one where it names none; undefined for what is no tag. */
function regionOf(tag: string): string | undefined {
  try {
    return new Intl.Locale(tag).maximize().region;
  } catch {
    return undefined;
  }
}
