'use client';

import { useComputedColorScheme } from '@mantine/core';
import { useMediaQuery, useWindowEvent } from '@mantine/hooks';
import { Suspense, useEffect, useRef, useState, type ReactNode } from 'react';
import { useLocale, useTranslations } from 'use-intl';
import { Help, OfLinkedTable, OnBench, PanelsAbove, PanelsOver } from './later-panels';
import { type Reader, type SheetRole, hasLegend, isFiller, isReader } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import { ReaderBar } from '../actions/ReaderBar';
import type { CellIds } from '../../core/sheet/ids';
import { ActionBar } from '../actions/ActionBar';
import { StatusLine } from '../actions/StatusLine';
import { hasOpenCells } from '../../core/sharing/filling';
import { FillList } from '../fill/FillList';
import { Grid } from '../grid/Grid';
import { Legend } from '../legend/Legend';
import type { Person } from '../people/PersonMenu';
import { useKeptDrafts } from '../legend/drafts/use-kept-drafts';
import { CellLine } from '../trace/CellLine';
import { Failure } from './Failure';
import { LostEntries } from './LostEntries';
import { Message } from './Message';
import { ReaderSide } from './ReaderSide';
import { FirstSteps } from '../start/FirstSteps';
import { lookedAt } from './engine/open-request';
import { Session } from './session';
import { SheetHeader } from './SheetHeader';
import classes from './SheetScreen.module.css';
import { SessionContext, useSession, useStateOf } from './use-session';

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

/** Goes to the cell that a link names, once. */
function useArrival(session: Session, at: CellIds | undefined): void {
  useEffect(() => {
    if (at) void session.goTo(at);
    // Where one comes from is looked at once.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [session]);
}

/** One sheet with its legend, its cells and the bench. */
export function SheetScreen({ id, name, role, person, as, at, notice }: Props) {
  const t = useTranslations('sheet');
  const theme = useComputedColorScheme('light', { getInitialValueInEffect: false });
  const sees = as ?? role;
  const locale = useLocale();
  const [session] = useState(() => new Session(id, t, lookedAt({ role, as, person: person.key, locale })));
  const reads = !session.isMaker;
  const firstTheme = useRef(theme);

  // The engine lives while the screen does. It starts in the theme of that moment; later ones follow from the grid.
  useEffect(() => session.start(firstTheme.current), [session]);

  useKeptDrafts(session, person.key);
  // Of the whole window: what had the focus may be gone, and then the keys are the body's.
  useWindowEvent('keydown', (event) => onScreenKey(event, session));

  useEffect(() => session.useTheme(theme), [session, theme]);

  useArrival(session, at);

  return (
    <SessionContext value={session}>
      <div className={classes.screen} data-sees={sees}>
        <Later>
          <SheetHeader id={id} name={name} role={role} person={person} as={as} />
        </Later>
        {hasLegend(sees) && (
          <div className={classes.legend}>
            <Later>{isReader(sees) ? <ReaderSide /> : <Legend />}</Later>
          </div>
        )}
        <main className={classes.work}>
          <Failure>
            {notice !== undefined && (
              <p className={classes.notice} role="note">
                {notice}
              </p>
            )}
            {reads ? <ReaderWork sees={sees} /> : <MakerWork />}
          </Failure>
        </main>
        <Later>
          <Message />
          <LostEntries />
          <Help />
          {!reads && <PanelsOver />}
        </Later>
      </div>
    </SessionContext>
  );
}

/**
 * What comes to life after the cells: until then it stands on the screen as the server rendered it. What renders it must
 * not render again meanwhile, or it has to come to life at once.
 */
const Later = ({ children }: { readonly children: ReactNode }) => <Suspense fallback={null}>{children}</Suspense>;

/** The sheet of those who make rules, with its tools and the bench. */
const MakerWork = () => (
  <>
    <Later>
      <ActionBar />
      <PanelsAbove isMaker />
    </Later>
    <Cells />
    <Later>
      <OfLinkedTable />
      <StatusLine />
      <FirstSteps />
      <OnBench />
    </Later>
  </>
);

/** The line of the selected cell, over the grid. */
const Cells = () => (
  <>
    <Later>
      <CellLine />
    </Later>
    <Grid />
  </>
);

/** The sheet of those who read it or fill it in. */
function ReaderWork({ sees }: { readonly sees: SheetRole }) {
  const list = useFillList(useSession(), sees);
  return (
    <>
      <ReaderBar role={sees} list={list} />
      <Later>
        <PanelsAbove isMaker={false} />
      </Later>
      {list.isList ? <FillList /> : <Cells />}
      <Later>{hasLegend(sees) && <StatusLine />}</Later>
    </>
  );
}

/**
 * Whether fillers see one record under the other: on a narrow screen they begin so, where there is something to fill
 * in.
 */
function useFillList(session: Session, sees: SheetRole) {
  const isNarrow = useMediaQuery('(max-width: 700px)', false) ?? false;
  const [list, onList] = useState<boolean | null>(null);
  const isFillable = useStateOf(session, ({ frame }) => frame === null || hasOpenCells(frame.filling));
  return { isList: isFiller(sees) && (list ?? (isNarrow && isFillable)), onList };
}

/** The topic of the place on the screen that an element is in. */
const topicAt = (target: EventTarget | null): string =>
  (target instanceof Element ? target.closest<HTMLElement>('[data-help]')?.dataset.help : undefined) ?? '';

/**
 * The keys of the whole screen, for those who make rules: Alt+R begins a rule, Alt+L one from examples, to which it adds
 * the selection then (with Shift, as cells that are to stay as they are), Control+K searches everything, and
 * Control+Enter saves the rule on the bench, also from an open look. Escape leaves the bench, from anywhere but what it closes itself.
 */
function onScreenKey(event: KeyboardEvent, session: Session): void {
  // Where the key was pressed: a popover that closed itself by it may no longer hold what had the focus.
  const path = event.composedPath();
  const isOver = (over: string): boolean => path.some((each) => each instanceof Element && each.matches(over));
  if (event.key === 'F1' && !event.defaultPrevented) {
    event.preventDefault();
    return session.openHelp(topicAt(event.target));
  }
  if (event.defaultPrevented || !session.isMaker || isOver('[aria-modal=true]')) return;
  const isControl = event.ctrlKey || event.metaKey;
  const isPlain =
    event.key.length === 1 && !isControl && !event.altKey && !isOver('input, textarea, [contenteditable]');
  if (isPlain && session.typeAhead(event.key)) return event.preventDefault();
  if (event.altKey && event.code === 'KeyR') session.openPanel('new-rule');
  else if (event.altKey && event.code === 'KeyL') session.examples.pointOrBegin(event.shiftKey ? 'none' : 0);
  else if (isControl && !event.shiftKey && event.key.toLowerCase() === 'k') session.openPanel('commands');
  else if (event.key === 'Enter' && isControl) session.rules[event.shiftKey ? 'keepAndGoOn' : 'keepDraft']();
  else if (event.key === 'Escape' && !isOver('[role=menu], [role=dialog]')) return session.rules.putAside();
  else return;
  event.preventDefault();
}
