import { headers } from 'next/headers';
import { localeFor } from '../texts/locale';
import { signedIn } from './signed-in';

/** The language of the texts for who asks for a page, with the region of numbers and dates. */
export async function readerLocale(): Promise<string> {
  // Where the database cannot be reached the page says so, in the language of the browser.
  const person = await signedIn().catch(() => undefined);
  return localeFor(person?.region ?? null, (await headers()).get('accept-language'));
}
