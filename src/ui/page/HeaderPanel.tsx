import { Button, Modal } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import type { ReactNode } from 'react';
import classes from './HeaderPanel.module.css';

interface Props {
  readonly label: string;
  readonly title: string;
  readonly icon: ReactNode;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  /** Its content, rendered when it is opened. */
  readonly children: () => ReactNode;
}

/**
 * A button in the head of a sheet, on a phone only its icon, that opens a panel over the sheet, on a phone in its
 * place.
 */
export function HeaderPanel({ label, title, icon, isOpen, onOpen, children }: Props) {
  const isNarrow = useMediaQuery('(max-width: 700px)');
  return (
    <>
      <Button
        variant="default"
        size="compact-sm"
        aria-label={label}
        leftSection={icon}
        onClick={() => onOpen(true)}
        className={classes.open}
      >
        {label}
      </Button>
      <Modal opened={isOpen} onClose={() => onOpen(false)} title={title} size={680} fullScreen={isNarrow ?? false}>
        {isOpen && children()}
      </Modal>
    </>
  );
}
