import { ActionIcon, Button, Menu, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp, IconRowInsertBottom, IconTrash } from '@tabler/icons-react';
import Link from 'next/link';
import type { SessionState } from './session-state';
import { selectedArea } from '../grid/engine/selection';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import { Mark } from './Mark';
import classes from './SheetScreen.module.css';
import { useSession, useSessionState } from './use-session';

/** The sheet's name, how the connection stands, and what can be done to its rows. */
export function SheetHeader({ name }: { readonly name: string }) {
  const session = useSession();
  const undo = useSessionState((state) => state.undo);
  const redo = useSessionState((state) => state.redo);
  return (
    <header className={classes.header}>
      <Link href="/" className={classes.mark} aria-label="All sheets">
        <Mark />
      </Link>
      <h1 className={classes.name} style={{ fontFamily: "'Newsreader Variable', serif" }}>
        {name}
      </h1>
      <span className={classes.spacer} />
      <LinkMark />
      <Tooltip label="Undo">
        <ActionIcon variant="subtle" color="ink" size="lg" aria-label="Undo" disabled={undo === 0} onClick={() => session.undo()}>
          <IconArrowBackUp size={18} stroke={1.5} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Redo">
        <ActionIcon variant="subtle" color="ink" size="lg" aria-label="Redo" disabled={redo === 0} onClick={() => session.redo()}>
          <IconArrowForwardUp size={18} stroke={1.5} />
        </ActionIcon>
      </Tooltip>
      <Rows />
      <ThemeSwitch />
    </header>
  );
}

function Rows() {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const { top, bottom } = selectedArea(selection);
  const count = bottom - top + 1;
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button variant="default" size="compact-md" fz={13}>
          Records
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item leftSection={<IconRowInsertBottom size={16} stroke={1.5} />} onClick={() => void session.addRecord()}>
          Add a record at the end
        </Menu.Item>
        <Menu.Item leftSection={<IconTrash size={16} stroke={1.5} />} onClick={() => session.removeRows()}>
          {count === 1 ? `Remove row ${top + 1}` : `Remove rows ${top + 1} to ${bottom + 1}`}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

function LinkMark() {
  const link = useSessionState((state) => state.link);
  const pending = useSessionState((state) => state.pending);
  const words = linkWords(link, pending);
  return (
    <span className={classes.link} role="status" aria-label={words} data-testid="link">
      <span className={classes.dot} data-state={link} aria-hidden />
      <span className={classes.linkWords}>{words}</span>
    </span>
  );
}

function linkWords(link: SessionState['link'], pending: number): string {
  if (link === 'opening') return 'Opening…';
  if (link === 'offline') return pending ? `Offline: ${pending} ${pending === 1 ? 'change waits' : 'changes wait'} here` : 'Offline: trying again';
  return pending ? 'Saving…' : 'Live, all saved';
}
