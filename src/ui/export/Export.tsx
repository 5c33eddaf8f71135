import { Button, Modal } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { IconFileExport } from '@tabler/icons-react';
import { useState } from 'react';
import classes from './Export.module.css';
import { ExportPanel } from './ExportPanel';

/** Takes the sheet, or what is selected of it, out as a file. */
export function Export() {
  const [isOpen, setOpen] = useState(false);
  const isNarrow = useMediaQuery('(max-width: 700px)');
  return (
    <>
      <Button
        variant="default"
        size="compact-sm"
        aria-label="Export"
        leftSection={<IconFileExport size={15} stroke={1.5} />}
        onClick={() => setOpen(true)}
        className={classes.open}
      >
        Export
      </Button>
      <Modal opened={isOpen} onClose={() => setOpen(false)} title="Take this sheet out as a file" size={680} fullScreen={isNarrow ?? false}>
        {isOpen && <ExportPanel />}
      </Modal>
    </>
  );
}
