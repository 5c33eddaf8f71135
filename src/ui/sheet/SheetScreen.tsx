'use client';

import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { SheetRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import { AllowedValues } from '../actions/AllowedValues';
import { ActionBar } from '../actions/ActionBar';
import { FindPanel } from '../actions/FindPanel';
import { Keys } from '../actions/Keys';
import { StylePanel } from '../actions/StylePanel';
import { StatusLine } from '../actions/StatusLine';
import { Bench } from '../bench/Bench';
import { Grid } from '../grid/Grid';
import { Legend } from '../legend/Legend';
import { CellLine } from '../trace/CellLine';
import { Failure } from './Failure';
import { Message } from './Message';
import { Session } from './session';
import { SheetHeader } from './SheetHeader';
import classes from './SheetScreen.module.css';
import { SessionContext } from './use-session';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  /** What one is to the sheet, and what one is called there. */
  readonly role: SheetRole;
  readonly person: string;
}

/** One sheet with its legend, its cells and the bench. */
export function SheetScreen({ id, name, role, person }: Props) {
  const theme = useComputedColorScheme('light', { getInitialValueInEffect: false });
  const [session] = useState(() => new Session(id));
  const firstTheme = useRef(theme);

  // The engine lives as long as the screen. It starts in the theme of that moment; later ones follow from the grid.
  useEffect(() => session.start(firstTheme.current), [session]);

  useEffect(() => session.useTheme(theme), [session, theme]);

  // Escape leaves the bench and Control+Enter keeps the rule from wherever one is, save from inside an open menu.
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.defaultPrevented || (event.target as Element).closest('[role=menu], [role=dialog]')) return;
    if (event.key === 'Escape') session.rules.leaveBench();
    else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) session.rules[event.shiftKey ? 'keepAndGoOn' : 'keepDraft']();
  };

  return (
    <SessionContext value={session}>
      <div className={classes.screen} onKeyDown={onKeyDown}>
        <SheetHeader id={id} name={name} role={role} person={person} />
        <div className={classes.legend}>
          <Legend />
        </div>
        <main className={classes.work}>
          <Failure>
            <ActionBar />
            <StylePanel />
            <FindPanel />
            <CellLine />
            <Grid />
            <StatusLine />
            <Bench />
          </Failure>
        </main>
        <Message />
        <Keys />
        <AllowedValues />
      </div>
    </SessionContext>
  );
}
