import { Button, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import classes from './Desk.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';

/** Names and makes an empty sheet, and opens it. */
export function NewSheet() {
  const t = useTranslations('desk');
  const router = useRouter();
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);

  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError(t('giveSheetName'));
    const sent = await sendJson<{ id: string }>('/api/sheets', { body: { name: name.trim() } });
    if ('answer' in sent) router.push(sheetPageUrl(sent.answer.id));
    else setError(sent.refused);
  };

  return (
    <form className={classes.new} onSubmit={(event) => void make(event)} noValidate>
      <TextInput
        label={t('createNew')}
        placeholder={t('name')}
        w={280}
        maxLength={120}
        value={name}
        error={error}
        onChange={(event) => {
          setName(event.currentTarget.value);
          setError(null);
        }}
      />
      <Button type="submit" mb={error ? 21 : 0}>
        {t('create')}
      </Button>
    </form>
  );
}
