import { NativeSelect } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { createFormatter, useFormatter, useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import { REGIONS } from '../../texts/locale';
import { LANGUAGE } from '../../texts/texts';
import classes from './People.module.css';

/** A number and a day that regions write differently. */
const NUMBER = 1234.5;
const DAY = new Date(Date.UTC(2026, 2, 8));

/** The region whose numbers and dates the interface uses; it applies at once. */
export function PickRegion({ region }: { readonly region: string | null }) {
  const t = useTranslations('people');
  const { displayName } = useFormatter();
  const router = useRouter();
  const [refused, setRefused] = useState<string | null>(null);
  const pick = async (next: string) => {
    const sent = await sendJson('/api/account', { method: 'PATCH', body: { region: next || null } });
    setRefused('refused' in sent ? sent.refused : null);
    router.refresh();
  };
  const choices = REGIONS.map((code) => {
    const { number, dateTime } = createFormatter({ locale: `${LANGUAGE}-${code}`, timeZone: 'UTC' });
    const example = {
      region: displayName(code, { type: 'region' }),
      number: number(NUMBER),
      date: dateTime(DAY, { dateStyle: 'short' }),
    };
    return { value: code as string, label: t('regionExample', example) };
  }).toSorted((a, b) => (a.label < b.label ? -1 : 1));
  return (
    <div className={classes.form}>
      <NativeSelect
        label={t('numbersAndDates')}
        value={region ?? ''}
        data={[{ value: '', label: t('asThisBrowser') }, ...choices]}
        onChange={({ currentTarget }) => void pick(currentTarget.value)}
      />
      {refused && <p role="alert">{refused}</p>}
    </div>
  );
}
