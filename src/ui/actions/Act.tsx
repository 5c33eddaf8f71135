import { ActionIcon, Tooltip } from '@mantine/core';
import type { Icon } from '@tabler/icons-react';

interface Props {
  /** The words of the tooltip. */
  readonly label: string;
  /** Its name, where that is shorter. */
  readonly name?: string;
  readonly icon: Icon;
  readonly isOn?: boolean;
  readonly disabled?: boolean;
  readonly onAct: () => void;
}

/** A button of the action bar that is only an icon. It leaves the focus where it is. */
export function Act({ label, name = label, icon: Picture, isOn, disabled = false, onAct }: Props) {
  return (
    <Tooltip label={label}>
      <ActionIcon
        variant={isOn ? 'light' : 'subtle'}
        color="ink"
        size={30}
        aria-label={name}
        aria-pressed={isOn}
        disabled={disabled}
        onMouseDown={(event) => event.preventDefault()}
        onClick={onAct}
      >
        <Picture size={17} stroke={1.6} />
      </ActionIcon>
    </Tooltip>
  );
}
