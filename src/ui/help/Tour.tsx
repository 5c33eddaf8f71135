import { Button } from '@mantine/core';
import { useEffect, useLayoutEffect, useRef, useState, type CSSProperties } from 'react';
import { useFormatter, useTranslations } from 'use-intl';
import { columnLetters } from '../../core/sheet/address';
import { foldText } from '../../core/values/fold-text';
import { itemAt } from '../../core/values/item-at';
import { focusGrid } from '../grid/focus-grid';
import { useProfiles } from '../legend/new-rule/use-profiles';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Tour.module.css';

/** Room between a part of the screen and the words about it, in pixels. */
const GAP_PX = 10;
/** Fields that are named. */
const MAX_NAMED = 4;
const CARD_PX = { width: 320, height: 190 };

/** A short tour of the open sheet: what each part of the screen does, with the sheet's own data. */
export default function Tour() {
  const t = useTranslations('help');
  const session = useSession();
  const [at, setAt] = useState(0);
  const stops = useStops();
  const { target, words } = itemAt(stops, at);
  const place = usePlace(target);
  const next = useRef<HTMLButtonElement>(null);
  useEffect(() => next.current?.focus({ preventScroll: true }), [at]);
  const end = () => {
    session.openHelp(null);
    focusGrid();
  };
  const isLast = at === stops.length - 1;
  return (
    <>
      {place && <div className={classes.ring} style={place.ring} aria-hidden />}
      <div
        role="dialog"
        aria-label={t('tour')}
        className={classes.card}
        style={place?.card}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.preventDefault();
          end();
        }}
      >
        <p className={classes.place}>{t('all', { at: at + 1, all: stops.length })}</p>
        <p>{words}</p>
        <div className={classes.acts}>
          <Button size="compact-sm" variant="subtle" color="ink" onClick={end}>
            {t('endTour')}
          </Button>
          <Button size="compact-sm" variant="default" disabled={at === 0} onClick={() => setAt(at - 1)}>
            {t('back')}
          </Button>
          <Button ref={next} size="compact-sm" onClick={isLast ? end : () => setAt(at + 1)}>
            {isLast ? t('done') : t('next')}
          </Button>
        </div>
      </div>
    </>
  );
}

/** The parts of the screen in the order of the tour, each with words about this sheet. */
function useStops(): readonly { readonly target: string; readonly words: string }[] {
  const t = useTranslations('help');
  const frame = useSessionState((state) => state.frame);
  const rules = useSessionState((state) => state.legend.length);
  const { list } = useFormatter();
  const fields = frame?.fields ?? [];
  const named = fields.flatMap(({ label }, column) => (label === columnLetters(column) ? [] : label));
  const { profiles } = useProfiles(fields.map(({ id }) => id));
  const numeric = profiles.find(({ profile }) => profile.profile.numbers > 0 && profile.dates === 0);
  const label = foldText(fields.find(({ id }) => id === numeric?.field)?.label ?? fields[0]?.label ?? '');
  const phrase = numeric
    ? t('labelBelowValueAs', { label, value: String(numeric.profile.profile.lowerQuartile) })
    : t('labelBlankAsWatch', { label });
  return [
    {
      target: '[role=grid]',
      words: t('yourTableNamesSelect', {
        names: named.length === 0 ? 'none' : list(named.slice(0, MAX_NAMED)),
      }),
    },
    {
      target: '[data-tour=new-rule]',
      words: t('sayWhatMattersStands', { phrase }),
    },
    {
      target: '[data-help=order]',
      words: t('rulesNumberCellsEach', { rules }),
    },
    {
      target: '[data-help=formulas]',
      words: t('selectCellLineShows'),
    },
    {
      target: '[data-tour=share]',
      words: t('shareSheetByLink'),
    },
  ];
}

interface Place {
  readonly ring: CSSProperties;
  readonly card: CSSProperties;
}

/** Where a part of the screen is, and where words about it find room: beside it, else over it. */
function usePlace(target: string): Place | null {
  const [place, setPlace] = useState<Place | null>(null);
  useLayoutEffect(() => {
    const measure = () => setPlace(placeOf(document.querySelector(target)));
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, [target]);
  return place;
}

function placeOf(element: Element | null): Place | null {
  if (!element) return null;
  const { left, top, right, bottom, width, height } = element.getBoundingClientRect();
  const { innerWidth, innerHeight } = window;
  const clamp = (value: number, most: number) => Math.max(GAP_PX, Math.min(value, most - GAP_PX));
  const isBeside = right + GAP_PX + CARD_PX.width < innerWidth;
  const isBelow = bottom + GAP_PX + CARD_PX.height < innerHeight;
  return {
    ring: { left, top, width, height },
    card: {
      left: clamp(isBeside ? right + GAP_PX : left, innerWidth - CARD_PX.width),
      top: clamp(isBeside || !isBelow ? top : bottom + GAP_PX, innerHeight - CARD_PX.height),
    },
  };
}
