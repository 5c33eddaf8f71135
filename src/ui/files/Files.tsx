import { Button, Modal, Tabs } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { IconFileExport } from '@tabler/icons-react';
import { useState } from 'react';
import classes from './Files.module.css';
import { ExportPanel } from './ExportPanel';
import { RefreshPanel } from './RefreshPanel';

/** Takes the sheet out as a file, and newer values in. */
export function Files() {
  const [isOpen, setOpen] = useState(false);
  const isNarrow = useMediaQuery('(max-width: 700px)');
  return (
    <>
      <Button
        variant="default"
        size="compact-sm"
        aria-label="Files"
        leftSection={<IconFileExport size={15} stroke={1.5} />}
        onClick={() => setOpen(true)}
        className={classes.open}
      >
        Files
      </Button>
      <Modal opened={isOpen} onClose={() => setOpen(false)} title="Files" size={680} fullScreen={isNarrow ?? false}>
        {isOpen && (
          <Tabs defaultValue="out" keepMounted={false} color="ink">
            <Tabs.List>
              <Tabs.Tab value="out">Take the sheet out</Tabs.Tab>
              <Tabs.Tab value="newer">Refresh it from a newer file</Tabs.Tab>
            </Tabs.List>
            <Tabs.Panel value="out" pt={16}>
              <ExportPanel />
            </Tabs.Panel>
            <Tabs.Panel value="newer" pt={16}>
              <RefreshPanel />
            </Tabs.Panel>
          </Tabs>
        )}
      </Modal>
    </>
  );
}
