import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AreaMeasures } from '../../core/rules/explain/measure-area';
import { formatNumber } from '../../core/values/number-format';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './StatusLine.module.css';

/** How long a selection must rest before it is measured. */
const REST_MS = 60;

/** A summary of the selected cells: count, sum, average, and the rules that paint them. */
export function StatusLine() {
  const t = useTranslations('actions');
  const isBusy = useSessionState((state) => state.isBusy);
  const measures = useMeasures();
  if (isBusy) return <Busy />;
  if (!measures) return <div className={classes.status} />;
  const { filled, numbers, distinct, sum, average, least, greatest, format, painted } = measures;
  const facts = [
    ['sum', sum],
    ['average', average],
    ['least', least],
    ['greatest', greatest],
  ] as const;
  return (
    <div className={classes.status} data-testid="status" role="group" aria-label={t('whatIsSelected')} tabIndex={0}>
      <span>{t.rich('filledFilled', { filled, b: (chunks) => <b>{chunks}</b> })}</span>
      <span>{t.rich('distinctDistinct', { distinct, b: (chunks) => <b>{chunks}</b> })}</span>
      {numbers > 1 &&
        facts.map(([name, value]) => (
          <span key={name}>
            {t(name)} <b>{shown(value ?? 0, name === 'average' ? null : format)}</b>
          </span>
        ))}
      <PastedAs />
      {painted.slice(0, 3).map(({ rule, name, cells }) => (
        <span key={rule}>
          {name}: <b>{t('countCells', { count: cells })}</b>
        </span>
      ))}
    </div>
  );
}

/** What is under way, how far it is, and the way to stop it. */
function Busy() {
  const t = useTranslations('actions');
  const session = useSession();
  const progress = useSessionState((state) => state.progress);
  return (
    <div className={classes.status}>
      <span role="status">{t('working')}</span>
      {progress !== null && (
        <>
          <progress value={progress} aria-label={t('progress')} />
          <Button size="compact-xs" variant="default" onClick={() => session.stop()}>
            {t('stop')}
          </Button>
        </>
      )}
    </div>
  );
}

/** The measures of the selection, once it rests. */
function useMeasures(): AreaMeasures | null {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const window = useSessionState((state) => state.window);
  const frame = useSessionState((state) => state.frame);
  const [measures, setMeasures] = useState<AreaMeasures | null>(null);

  useEffect(() => {
    if (!frame) return;
    let isStale = false;
    const waiting = setTimeout(
      () => void session.actions.measure().then((found) => !isStale && setMeasures(found)),
      REST_MS,
    );
    return () => {
      isStale = true;
      clearTimeout(waiting);
    };
  }, [session, selection, window, frame]);
  return measures;
}

/** By the field's own format; an average with a little more. */
const shown = (value: number, format: string | null): string =>
  format === null
    ? Number(value.toPrecision(6)).toLocaleString('en', { maximumFractionDigits: 6 })
    : formatNumber(value, format);

const HOWS = [
  { how: 'all', label: 'all' },
  { how: 'values', label: 'valuesOnly' },
  { how: 'looks', label: 'looksOnly' },
  { how: 'transposed', label: 'transposed' },
] as const;

/** After a paste: how it was done, and how else it could be. */
function PastedAs() {
  const t = useTranslations('actions');
  const session = useSession();
  const pasted = useSessionState((state) => state.pasted);
  if (!pasted) return null;
  return (
    <span className={classes.pasted} role="group" aria-label={t('pasted')}>
      {t('pasted')}
      {HOWS.filter(({ how }) => pasted.table.token !== null || how === 'all' || how === 'transposed').map(
        ({ how, label }) => (
          <button
            key={how}
            type="button"
            aria-pressed={pasted.how === how}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => void session.actions.pasteAgain(how)}
          >
            {t(label)}
          </button>
        ),
      )}
    </span>
  );
}
