'use client';

import { useLocalStorage } from '@mantine/hooks';
import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconChevronDown, IconChevronUp } from '@tabler/icons-react';
import {
  useDeferredValue,
  useEffect,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { useTranslations } from 'use-intl';
import { BenchEdge, MIN_PX, REST_PX } from './BenchEdge';
import { isUnkept, type SessionState } from '../sheet/session-state';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Bench.module.css';
import { NoteInput } from './NoteInput';
import { Past } from './past/Past';
import { ViewSwitch, type BenchView } from './past/ViewSwitch';
import { Picture } from './picture/Picture';
import { Proof } from './Proof';
import { Sentence } from './Sentence';
import { Trials } from './Trials';

/** Sentence, picture and proof fit in it without scrolling. */
const USUAL_HEIGHT_PX = 300;

/** The bench, under the grid: a rule's sentence, the values it tests, and its outcome. */
export function Bench() {
  const t = useTranslations('bench');
  const session = useSession();
  const bench = useSessionState((state) => state.bench);
  const [isFolded, setFolded] = useState(false);
  const [heightPx, setHeightPx] = useLocalStorage({ key: 'auxesis-bench-height', defaultValue: USUAL_HEIGHT_PX });
  const section = useRef<HTMLElement>(null);
  useBenchFocus(section, bench);
  // The preview column of its formula stands beside the rows while the rule is on the bench.
  const tried = bench?.draft.id ?? null;
  useEffect(() => void session.ask({ kind: 'trial', rule: tried }), [session, tried]);
  if (!bench) return null;
  const keep = () => {
    session.rules.keepDraft();
    // The button has nothing more to do and lets go of the keys, which are to stay here.
    section.current?.focus({ preventScroll: true });
  };
  // As in a form: Enter in one of its lines saves.
  const onKeyDown = (event: KeyboardEvent) => {
    const isLine = event.target instanceof HTMLInputElement && section.current?.contains(event.target);
    const isPlain = event.key === 'Enter' && !event.ctrlKey && !event.metaKey && !event.nativeEvent.isComposing;
    if (!isPlain || !isLine || event.defaultPrevented) return;
    // What was typed last is in the session's bench.
    const { bench: now } = session.get();
    if (now && isUnkept(now)) keep();
  };

  return (
    <section
      ref={section}
      tabIndex={-1}
      className={classes.bench}
      aria-label={t('bench')}
      data-help="change"
      data-folded={isFolded}
      style={
        {
          '--bench-height': `${heightPx}px`,
          '--bench-most': `max(${MIN_PX}px, 100dvh - ${REST_PX}px)`,
        } as CSSProperties
      }
      onKeyDown={onKeyDown}
    >
      {!isFolded && <BenchEdge heightPx={heightPx} onHeight={setHeightPx} />}
      <BenchHead bench={bench} isFolded={isFolded} onKeep={keep} onFold={() => setFolded(!isFolded)} />
      <BenchBody bench={bench} isFolded={isFolded} />
    </section>
  );
}

interface BenchBodyProps {
  readonly bench: NonNullable<SessionState['bench']>;
  readonly isFolded: boolean;
}

/** The rule itself. While a threshold is dragged, the picture follows at once, words and proof when there is time. */
function BenchBody({ bench, isFolded }: BenchBodyProps) {
  const [view, onView] = useState<BenchView>('values');
  const later = useDeferredValue(bench);
  const { rule } = (bench.isDragged && later.draft.id === bench.draft.id ? later : bench).draft;
  return (
    <div className={classes.body}>
      <Sentence rule={rule} showsOutcomes={!isFolded} />
      {!isFolded && (
        <div className={classes.picture}>
          <ViewSwitch view={view} onView={onView} />
          {view === 'past' ? (
            <Past rule={rule} kept={bench.kept?.rule ?? null} />
          ) : (
            <>
              <Picture rule={bench.draft.rule} />
              <Proof rule={rule} />
              <Trials rule={rule} />
            </>
          )}
        </div>
      )}
    </div>
  );
}

/** Moves the focus to the bench when a rule is begun, or to its first value when one is opened to be changed. */
function useBenchFocus(section: RefObject<HTMLElement | null>, bench: SessionState['bench']): void {
  const begun = bench?.kept === null || bench?.takesFocus ? bench.draft.id : null;
  const isChanged = bench?.takesFocus ?? false;
  useEffect(() => {
    if (begun === null) return;
    const value = isChanged ? section.current?.querySelector<HTMLInputElement>(`.${classes.threshold}`) : null;
    (value ?? section.current)?.focus({ preventScroll: true });
    value?.select();
  }, [section, begun, isChanged]);
}

interface BenchHeadProps extends BenchBodyProps {
  readonly onKeep: () => void;
  readonly onFold: () => void;
}

/** The rule's name and note, and what becomes of the draft. */
function BenchHead({ bench, isFolded, onKeep, onFold }: BenchHeadProps) {
  const t = useTranslations('bench');
  const { draft, kept } = bench;
  const session = useSession();
  const isChanged = isUnkept(bench);
  return (
    <div className={classes.head}>
      <TextInput
        className={classes.name}
        size="xs"
        aria-label={t('nameOfTheRule')}
        placeholder={t('namedAutomatically')}
        maxLength={200}
        value={draft.rule.name}
        onChange={(event) => session.rules.nameDraft(event.currentTarget.value)}
      />
      <NoteInput />
      <span className={classes.spacer} />
      <Button size="compact-md" fz={13} disabled={!isChanged} onClick={onKeep}>
        {kept ? t('saveChanges') : t('saveRule')}
      </Button>
      <Button size="compact-md" fz={13} variant="default" onClick={() => session.rules.leaveBench()}>
        {isChanged ? (kept ? t('discardChanges') : t('discard')) : t('done')}
      </Button>
      <ActionIcon
        variant="subtle"
        color="ink"
        aria-label={isFolded ? t('expandTheBench') : t('collapseTheBench')}
        onClick={onFold}
      >
        {isFolded ? <IconChevronUp size={16} stroke={1.5} /> : <IconChevronDown size={16} stroke={1.5} />}
      </ActionIcon>
    </div>
  );
}
