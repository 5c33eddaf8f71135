import { counted, inDigits } from '../../core/values/counted';
import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { AreaMeasures } from '../../core/rules/explain/measure-area';
import { formatNumber } from '../../core/values/number-format';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './StatusLine.module.css';

/** How long a selection must rest before it is measured. */
const REST_MS = 60;

/** A summary of the selected cells: count, sum, average, and the rules that paint them. */
export function StatusLine() {
  const isBusy = useSessionState((state) => state.isBusy);
  const measures = useMeasures();
  if (isBusy) return <Busy />;
  if (!measures) return <div className={classes.status} />;
  const { filled, numbers, distinct, sum, average, least, greatest, format, painted } = measures;
  const facts = [
    ['Sum', sum],
    ['Average', average],
    ['Least', least],
    ['Greatest', greatest],
  ] as const;
  return (
    <div className={classes.status} data-testid="status" role="group" aria-label="What is selected" tabIndex={0}>
      <span>
        <b>{inDigits(filled)}</b> filled
      </span>
      <span>
        <b>{inDigits(distinct)}</b> distinct
      </span>
      {numbers > 1 &&
        facts.map(([name, value]) => (
          <span key={name}>
            {name} <b>{shown(value ?? 0, name === 'Average' ? null : format)}</b>
          </span>
        ))}
      <PastedAs />
      {painted.slice(0, 3).map(({ rule, name, cells }) => (
        <span key={rule}>
          {name}: <b>{counted(cells, 'cell')}</b>
        </span>
      ))}
    </div>
  );
}

/** What is under way, how far it is, and the way to stop it. */
function Busy() {
  const session = useSession();
  const progress = useSessionState((state) => state.progress);
  return (
    <div className={classes.status}>
      <span role="status">Working…</span>
      {progress !== null && (
        <>
          <progress value={progress} aria-label="Progress" />
          <Button size="compact-xs" variant="default" onClick={() => session.stop()}>
            Stop
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
  { how: 'values', label: 'values only' },
  { how: 'looks', label: 'looks only' },
  { how: 'transposed', label: 'transposed' },
] as const;

/** After a paste: how it was done, and how else it could be. */
function PastedAs() {
  const session = useSession();
  const pasted = useSessionState((state) => state.pasted);
  if (!pasted) return null;
  return (
    <span className={classes.pasted} role="group" aria-label="Pasted">
      Pasted
      {HOWS.filter(({ how }) => pasted.table.token !== null || how === 'all' || how === 'transposed').map(
        ({ how, label }) => (
          <button
            key={how}
            type="button"
            aria-pressed={pasted.how === how}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => void session.actions.pasteAgain(how)}
          >
            {label}
          </button>
        ),
      )}
    </span>
  );
}
