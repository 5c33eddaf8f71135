import { createTranslator } from 'use-intl';
import { english } from '../../src/texts/english';
import { LANGUAGE, type Place, type Texts } from '../../src/texts/texts';

/** The English texts of a place, for what is tested without a page around it. */
export const englishTexts = <P extends Place>(place: P): Texts<P> =>
  createTranslator({ locale: LANGUAGE, messages: english, namespace: place }) as Texts<P>;
