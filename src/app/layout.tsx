import '@mantine/core/styles.css';
import '@fontsource-variable/hanken-grotesk';
import '@fontsource-variable/hanken-grotesk/wght-italic.css';
import '@fontsource-variable/newsreader';
import '@fontsource/atkinson-hyperlegible-mono';
import '../ui/theme/global.css';
import { ColorSchemeScript, mantineHtmlProps } from '@mantine/core';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { ThemeProvider } from '../ui/theme/ThemeProvider';

export const metadata: Metadata = { title: 'Auxesis', description: 'Rules over shared sheets, so that the records that matter stand out' };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <html lang="en" {...mantineHtmlProps}>
      <head>
        <ColorSchemeScript defaultColorScheme="auto" />
      </head>
      <body>
        <ThemeProvider>{children}</ThemeProvider>
      </body>
    </html>
  );
}
