import { Button, NativeSelect } from '@mantine/core';
import { useCallback, useEffect, useState } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import classes from './Share.module.css';

/** The ways in which field devices behave that the logger stands in for. */
const WAYS = [
  { value: 'mixed', label: 'all of this in turn' },
  { value: 'steady', label: 'one reading after another' },
  { value: 'bursts', label: 'nothing for a while, then many at once' },
  { value: 'drift', label: 'a sensor that slowly runs away' },
  { value: 'faults', label: 'blanks, error codes, values that stick' },
] as const;

/** Starts and stops the logger, which stands in for field devices at the demo's stations. */
export function LoggerPart({ sheet }: { readonly sheet: SheetId }) {
  const path = sheetUrl(sheet, 'logger');
  const [isOn, setOn] = useState<boolean | null>(null);
  const [way, setWay] = useState<string>(WAYS[0].value);
  const [error, setError] = useState<string | null>(null);

  const ask = useCallback(
    async (how: Parameters<typeof sendJson>[1]) => {
      const sent = await sendJson<{ isOn: boolean }>(path, how);
      if ('refused' in sent) setError(sent.refused);
      else {
        setError(null);
        setOn(sent.answer.isOn);
      }
    },
    [path],
  );
  useEffect(() => {
    // What the server says is put on screen when it comes.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    void ask({ method: 'GET' });
  }, [ask]);

  return (
    <section className={classes.logger} aria-label="Logger">
      <p className={classes.note}>
        <b>Logger.</b> It stands in for field devices: it enters readings at the stations, as a program of its own, for
        as long as the app runs.
      </p>
      <div className={classes.form}>
        <NativeSelect
          label="It sends"
          value={way}
          data={WAYS.map((each) => ({ ...each }))}
          onChange={({ currentTarget }) => setWay(currentTarget.value)}
        />
        <Button
          variant="default"
          disabled={isOn === null}
          onClick={() => void ask(isOn ? { method: 'DELETE' } : { body: { way } })}
        >
          {isOn ? 'Stop it' : 'Start it'}
        </Button>
        <span role="status">{isOn ? 'It is on' : ''}</span>
      </div>
      {error && <p role="alert">{error}</p>}
    </section>
  );
}
