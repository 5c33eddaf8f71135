'use client';

import { Button, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { Page } from '../page/Page';
import classes from './People.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';

interface Props {
  readonly token: string;
  readonly sheetName: string;
  /** What the role allows, such as "fill in". */
  readonly may: string;
  /** An invitation is taken up with an account; by a link one only gives a name. */
  readonly isInvitation: boolean;
  /** The visitor's name, where it is known. */
  readonly name: string;
}

/** Joins a sheet by a link. */
export function Join({ token, sheetName, may, isInvitation, name: known }: Props) {
  const t = useTranslations('people');
  const [name, setName] = useState(known);
  const [error, setError] = useState<string | null>(null);
  const [isSending, setIsSending] = useState(false);

  const join = async (event: FormEvent) => {
    event.preventDefault();
    if (!isInvitation && name.trim() === '') return setError(t('enterYourName'));
    setIsSending(true);
    const sent = await sendJson<{ sheet: SheetId }>(`/api/links/${token}`, {
      body: isInvitation ? {} : { name: name.trim() },
    });
    if ('answer' in sent) return window.location.assign(sheetPageUrl(sent.answer.sheet));
    setError(sent.refused);
    setIsSending(false);
  };

  return (
    <Page title={sheetName} lead={t('youHaveBeenGiven', { may })}>
      <form className={classes.form} onSubmit={(event) => void join(event)} noValidate>
        {!isInvitation && (
          <TextInput
            label={t('yourName')}
            description={t('ownerSheetSeesYou')}
            maxLength={60}
            value={name}
            onChange={(event) => {
              setName(event.currentTarget.value);
              setError(null);
            }}
            data-autofocus
          />
        )}
        {error && (
          <p role="alert" className={classes.error}>
            {error}
          </p>
        )}
        <div className={classes.acts}>
          <Button type="submit" loading={isSending}>
            {t('openTheSheet')}
          </Button>
        </div>
      </form>
    </Page>
  );
}
