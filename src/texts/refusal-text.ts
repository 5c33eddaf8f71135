import { createTranslator } from 'use-intl/core';
import { english } from './english';
import { LANGUAGE } from './texts';

/** Says why the server does not take something. */
export const refusalText = createTranslator({ locale: LANGUAGE, messages: english, namespace: 'refusals' });
