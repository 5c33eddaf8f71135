'use client';

import { MantineProvider } from '@mantine/core';
import type { ReactNode } from 'react';
import { theme, variables } from './theme';

/** Dresses everything inside in the product's own colours and type. */
export function ThemeProvider({ children }: { readonly children: ReactNode }) {
  return (
    <MantineProvider theme={theme} cssVariablesResolver={variables} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  );
}
