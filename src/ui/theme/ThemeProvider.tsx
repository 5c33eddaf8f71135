'use client';

import { MantineProvider, mergeThemeOverrides } from '@mantine/core';
import { useMemo, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { theme, variables } from './theme';

/** Dresses everything inside in the product's own colours and type. */
export function ThemeProvider({ children }: { readonly children: ReactNode }) {
  const t = useTranslations('theme');
  const named = useMemo(() => {
    const closes = { defaultProps: { closeButtonProps: { 'aria-label': t('close') } } };
    return mergeThemeOverrides(theme, { components: { Modal: closes, Drawer: closes } });
  }, [t]);
  return (
    <MantineProvider theme={named} cssVariablesResolver={variables} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  );
}
