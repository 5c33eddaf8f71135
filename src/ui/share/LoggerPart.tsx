import { Button, NativeSelect } from '@mantine/core';
import { useState } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { useLoaded } from '../page/use-loaded';
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
  const { value: logger, error, reload } = useLoaded<{ readonly isOn: boolean }>(path);
  const [way, setWay] = useState<string>(WAYS[0].value);
  const [refused, setRefused] = useState<string | null>(null);
  const isOn = logger?.isOn ?? null;
  const message = refused ?? error;
  const toggle = async () => {
    const sent = await sendJson(path, isOn ? { method: 'DELETE' } : { body: { way } });
    setRefused('refused' in sent ? sent.refused : null);
    reload();
  };

  return (
    <section className={classes.logger} aria-label="Logger">
      <p className={classes.note}>
        <b>Logger.</b> A simulator of field devices: it enters readings at the stations while the app runs.
      </p>
      <div className={classes.form}>
        <NativeSelect
          label="Pattern"
          value={way}
          data={WAYS.map((each) => ({ ...each }))}
          onChange={({ currentTarget }) => setWay(currentTarget.value)}
        />
        <Button variant="default" disabled={isOn === null} onClick={() => void toggle()}>
          {isOn ? 'Stop' : 'Start'}
        </Button>
        <span role="status">{isOn ? 'Running' : ''}</span>
      </div>
      {message && <p role="alert">{message}</p>}
    </section>
  );
}
