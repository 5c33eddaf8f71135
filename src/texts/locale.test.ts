import { describe, expect, test } from 'vitest';
import { decimalSign, localeFor, REGIONS } from './locale';

describe('the locale of a reader', () => {
  // The header as RFC 9110, 12.5.4, writes it; likely regions by CLDR.
  test.each([
    [null, 'da, en-GB;q=0.8, en;q=0.7', 'en-DK'],
    [null, 'de-CH,de;q=0.9', 'en-CH'],
    [null, 'de', 'en-DE'],
    [null, 'en-US,en;q=0.5', 'en-US'],
    [null, 'en', 'en-US'],
    ['NL', 'en-US', 'en-NL'],
    [null, 'fr-FR', 'en-BE'],
    [null, 'pl', 'en-BE'],
    [null, 'ja-JP', 'en-GB'],
    [null, '*', 'en-GB'],
    [null, '', 'en-GB'],
    [null, null, 'en-GB'],
  ])('%s, %s: %s', (region, header, locale) => expect(localeFor(region, header)).toBe(locale));

  test.each(REGIONS)('%s has forms of its own here', (region) =>
    expect(new Intl.NumberFormat(`en-${region}`).resolvedOptions().locale).toBe(`en-${region}`),
  );
});

// CLDR, numbers of the locales: symbols-numberSystem-latn/decimal.
test.each([
  ['en-DE', ','],
  ['en-BE', ','],
  ['en-GB', '.'],
  ['en-CH', '.'],
])('%s divides decimals with %j', (locale, sign) => expect(decimalSign(locale)).toBe(sign));
