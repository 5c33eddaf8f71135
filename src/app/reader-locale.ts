import { headers } from 'next/headers';
import { localeFor } from '../texts/locale';
import { signedIn } from './signed-in';

/** The language of the texts for who asks for a page, with the region of numbers and dates. */
export async function readerLocale(): Promise<string> {
  const person = await signedIn();
  return localeFor(person?.region ?? null, (await headers()).get('accept-language'));
}
