'use client';

import { useComputedColorScheme } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { isMaker, type Reader, type SheetRole, hasLegend, isFiller, isReader } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import { ReaderBar } from '../actions/ReaderBar';
import type { CellIds } from '../../core/sheet/ids';
import { AllowedValues } from '../actions/AllowedValues';
import { ActionBar } from '../actions/ActionBar';
import { FindPanel } from '../actions/FindPanel';
import { Keys } from '../actions/Keys';
import { StylePanel } from '../actions/StylePanel';
import { StatusLine } from '../actions/StatusLine';
import { Bench } from '../bench/Bench';
import { FillList } from '../fill/FillList';
import { useHasOpenCells } from '../fill/use-has-open-cells';
import { Grid } from '../grid/Grid';
import { Legend } from '../legend/Legend';
import type { Person } from '../people/PersonMenu';
import { useKeptDrafts } from '../legend/drafts/use-kept-drafts';
import { CellLine } from '../trace/CellLine';
import { Failure } from './Failure';
import { LostEntries } from './LostEntries';
import { Message } from './Message';
import { ReaderSide } from './ReaderSide';
import { Session } from './session';
import { SheetHeader } from './SheetHeader';
import classes from './SheetScreen.module.css';
import { SessionContext } from './use-session';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  /** The person's role and name on the sheet. */
  readonly role: SheetRole;
  readonly person: Person;
  /** As whom its owner or an editor wants to see it. */
  readonly as?: Reader['role'] | undefined;
  /** The cell to go to. */
  readonly at?: CellIds | undefined;
  /** A message of the server about the sheet, for those who work on it. */
  readonly notice?: string | undefined;
}

/** One sheet with its legend, its cells and the bench. */
export function SheetScreen({ id, name, role, person, as, at, notice }: Props) {
  const theme = useComputedColorScheme('light', { getInitialValueInEffect: false });
  const reads = as === undefined && isMaker(role) ? undefined : { as };
  const sees = as ?? role;
  const [session] = useState(() => new Session(id, { who: person.key, ...(reads ? { reads } : {}) }));
  const firstTheme = useRef(theme);
  // Fillers on a narrow screen begin with one record under the other, where there is something to fill in.
  const isNarrow = useMediaQuery('(max-width: 700px)', false) ?? false;
  const [list, setList] = useState<boolean | null>(null);
  const hasOpenCells = useHasOpenCells(session);
  const isList = isFiller(sees) && (list ?? (isNarrow && hasOpenCells));

  // The engine lives while the screen does. It starts in the theme of that moment; later ones follow from the grid.
  useEffect(() => session.start(firstTheme.current), [session]);

  useKeptDrafts(session);

  useEffect(() => session.useTheme(theme), [session, theme]);

  useEffect(() => {
    if (at) void session.goTo(at);
    // Where one comes from is looked at once.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [session]);

  return (
    <SessionContext value={session}>
      <div className={classes.screen} data-sees={sees} onKeyDown={(event) => onScreenKey(event, session)}>
        <SheetHeader id={id} name={name} role={role} person={person} as={as} />
        {hasLegend(sees) && <div className={classes.legend}>{isReader(sees) ? <ReaderSide /> : <Legend />}</div>}
        <main className={classes.work}>
          <Failure>
            {notice !== undefined && (
              <p className={classes.notice} role="note">
                {notice}
              </p>
            )}
            {reads ? <ReaderBar role={sees} list={{ isList, onList: setList }} /> : <ActionBar />}
            {!reads && <StylePanel />}
            <FindPanel />
            {isList ? (
              <FillList />
            ) : (
              <>
                <CellLine />
                <Grid />
              </>
            )}
            {hasLegend(sees) && <StatusLine />}
            {!reads && <Bench />}
          </Failure>
        </main>
        <Message />
        <LostEntries />
        <Keys />
        {!reads && <AllowedValues />}
      </div>
    </SessionContext>
  );
}

/** Escape leaves the bench and Control+Enter keeps the rule from anywhere but an open menu. */
function onScreenKey(event: KeyboardEvent, session: Session): void {
  if (event.defaultPrevented || (event.target instanceof Element && event.target.closest('[role=menu], [role=dialog]')))
    return;
  if (event.key === 'Escape') session.rules.putAside();
  else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey))
    session.rules[event.shiftKey ? 'keepAndGoOn' : 'keepDraft']();
}
