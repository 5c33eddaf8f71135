import './mantine-styles';
import '@fontsource-variable/hanken-grotesk';
import '@fontsource-variable/hanken-grotesk/wght-italic.css';
import '@fontsource-variable/newsreader';
import '@fontsource/atkinson-hyperlegible-mono';
import '../ui/theme/global.css';
import { ColorSchemeScript, mantineHtmlProps } from '@mantine/core';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { LANGUAGE } from '../texts/texts';
import { TextsProvider } from '../ui/texts/TextsProvider';
import { ThemeProvider } from '../ui/theme/ThemeProvider';
import { pageTexts } from './page-texts';
import { readerLocale } from './reader-locale';

const t = pageTexts();
export const metadata: Metadata = {
  title: t('auxesis'),
  description: t('rulesOverSharedSheets'),
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang={LANGUAGE} {...mantineHtmlProps}>
      <head>
        <ColorSchemeScript defaultColorScheme="auto" nonce={nonce} />
      </head>
      <body>
        <TextsProvider locale={await readerLocale()}>
          <ThemeProvider>{children}</ThemeProvider>
        </TextsProvider>
      </body>
    </html>
  );
}
