import { createTranslator } from 'use-intl/core';
import { english } from '../texts/english';
import { LANGUAGE, type Texts } from '../texts/texts';

/** The texts of pages that are rendered on the server alone, such as titles. */
export const pageTexts = (): Texts<'app'> =>
  createTranslator({ locale: LANGUAGE, messages: english, namespace: 'app' });
