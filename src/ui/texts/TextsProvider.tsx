'use client';

import type { ReactNode } from 'react';
import { IntlProvider } from 'use-intl';
import { english } from '../../texts/english';

interface Props {
  /** The language of the texts with the region of numbers and dates, such as en-GB. */
  readonly locale: string;
  readonly children: ReactNode;
}

/** Gives everything inside the texts of the interface, in the reader's language and region. */
export function TextsProvider({ locale, children }: Props) {
  return (
    <IntlProvider locale={locale} messages={english} timeZone={Intl.DateTimeFormat().resolvedOptions().timeZone}>
      {children}
    </IntlProvider>
  );
}
