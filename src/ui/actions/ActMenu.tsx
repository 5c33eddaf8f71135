import { Button, Menu } from '@mantine/core';
import type { Icon } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { focusGrid } from '../grid/focus-grid';

interface Props {
  readonly label: string;
  readonly icon: Icon;
  /** In pixels. */
  readonly width: number;
  readonly onClose?: () => void;
  /** The items. */
  readonly children: ReactNode;
}

/** A menu of the bar above the sheet, which has the focus again afterwards. */
export function ActMenu({ label, icon: Icon, width, onClose = focusGrid, children }: Props) {
  return (
    <Menu onClose={onClose} position="bottom-start" width={width}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<Icon size={16} stroke={1.5} />}>
          {label}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>{children}</Menu.Dropdown>
    </Menu>
  );
}
