import { ActionIcon, Tooltip, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconMoon, IconSun } from '@tabler/icons-react';

/** Light or dark. */
export function ThemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const theme = useComputedColorScheme('light');
  const other = theme === 'light' ? 'dark' : 'light';
  return (
    <Tooltip label={`Use the ${other} colours`}>
      <ActionIcon
        variant="subtle"
        color="ink"
        size="lg"
        aria-label={`Use the ${other} colours`}
        onClick={() => setColorScheme(other)}
      >
        {theme === 'light' ? <IconMoon size={18} stroke={1.5} /> : <IconSun size={18} stroke={1.5} />}
      </ActionIcon>
    </Tooltip>
  );
}
