import { Button, NativeSelect } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { useLoaded } from '../page/use-loaded';
import classes from './Share.module.css';

/** The ways in which field devices behave that the logger stands in for. */
const WAYS = [
  { value: 'mixed', label: 'allTurn' },
  { value: 'steady', label: 'oneReadingAfterAnother' },
  { value: 'bursts', label: 'nothingWhileThenMany' },
  { value: 'drift', label: 'sensorSlowlyRunsAway' },
  { value: 'faults', label: 'blanksErrorCodesValues' },
] as const;

/** Starts and stops the logger, which stands in for field devices at the demo's stations. */
export function LoggerPart({ sheet }: { readonly sheet: SheetId }) {
  const t = useTranslations('share');
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
    <section className={classes.logger} aria-label={t('logger')}>
      <p className={classes.note}>{t.rich('loggerSimulatorFieldDevices', { b: (chunks) => <b>{chunks}</b> })}</p>
      <div className={classes.form}>
        <NativeSelect
          label={t('pattern')}
          value={way}
          data={labelled(WAYS, (key) => t(key))}
          onChange={({ currentTarget }) => setWay(currentTarget.value)}
        />
        <Button variant="default" disabled={isOn === null} onClick={() => void toggle()}>
          {isOn ? t('stop') : t('start')}
        </Button>
        <span role="status">{isOn ? t('running') : ''}</span>
      </div>
      {message && <p role="alert">{message}</p>}
    </section>
  );
}
