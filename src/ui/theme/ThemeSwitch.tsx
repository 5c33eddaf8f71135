import { ActionIcon, Tooltip, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconMoon, IconSun } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';

/** Light or dark. */
export function ThemeSwitch() {
  const t = useTranslations('theme');
  const { setColorScheme } = useMantineColorScheme();
  const theme = useComputedColorScheme('light');
  const other = theme === 'light' ? 'dark' : 'light';
  return (
    <Tooltip label={t('useTheOtherColours', { other })}>
      <ActionIcon
        variant="subtle"
        color="ink"
        size="lg"
        aria-label={t('useTheOtherColours', { other })}
        onClick={() => setColorScheme(other)}
      >
        {theme === 'light' ? <IconMoon size={18} stroke={1.5} /> : <IconSun size={18} stroke={1.5} />}
      </ActionIcon>
    </Tooltip>
  );
}
