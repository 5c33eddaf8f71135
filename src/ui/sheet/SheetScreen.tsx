'use client';

import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { SheetId } from '../../core/sheet/ids';
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

/** One sheet with its legend, its cells and the bench. */
export function SheetScreen({ id, name }: { readonly id: SheetId; readonly name: string }) {
  const theme = useComputedColorScheme('light', { getInitialValueInEffect: false });
  const [session, setSession] = useState<Session | null>(null);

  // The engine lives as long as the screen; its theme follows from the grid.
  useEffect(() => {
    const opened = new Session(id, theme);
    setSession(opened);
    return () => opened.close();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);

  if (!session) return <main className={classes.screen} aria-busy />;
  return (
    <SessionContext value={session}>
      <div className={classes.screen}>
        <SheetHeader name={name} />
        <div className={classes.legend}>
          <Legend />
        </div>
        <main className={classes.work}>
          <Failure>
            <CellLine />
            <Grid />
            <Bench />
          </Failure>
        </main>
        <Message />
      </div>
    </SessionContext>
  );
}
