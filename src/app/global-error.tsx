'use client';

import './mantine-styles';
import '../ui/theme/global.css';
import { LANGUAGE } from '../texts/texts';
import { TextsProvider } from '../ui/texts/TextsProvider';
import { ThemeProvider } from '../ui/theme/ThemeProvider';
import { Broken } from '../ui/page/Broken';

/** In place of everything, where the frame of all pages threw. */
export default function GlobalError({ reset }: { readonly reset: () => void }) {
  return (
    <html lang={LANGUAGE}>
      <body>
        <TextsProvider locale={LANGUAGE}>
          <ThemeProvider>
            <Broken onRetry={reset} />
          </ThemeProvider>
        </TextsProvider>
      </body>
    </html>
  );
}
