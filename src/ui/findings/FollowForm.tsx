import { Button, NativeSelect, TextInput } from '@mantine/core';
import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import type { Key } from '../../texts/texts';
import { memberOf } from '../../core/values/typed-keys';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import type { Digest, FollowSettings } from '../../protocol/findings';
import { sendJson } from '../../engine/link/send-json';
import classes from './FollowForm.module.css';

const DIGESTS: readonly { readonly value: Digest; readonly label: Key<'findings'> }[] = [
  { value: 'none', label: 'none' },
  { value: 'hour', label: 'hourly' },
  { value: 'day', label: 'daily' },
];

interface Props {
  readonly sheet: SheetId;
  readonly settings: FollowSettings;
  readonly isOwner: boolean;
}

/** How a person follows a sheet's findings besides the feed. */
export function FollowForm({ sheet, settings, isOwner }: Props) {
  const t = useTranslations('findings');
  const [hook, setHook] = useState(settings.hook ?? '');
  const [digest, setDigest] = useState(settings.digest);
  const [notice, setNotice] = useState<string | null>(null);
  const send = async (body: Partial<FollowSettings>, done: string) => {
    const sent = await sendJson(sheetUrl(sheet, 'findings/settings'), {
      method: 'PATCH',
      body,
    });
    setNotice('refused' in sent ? sent.refused : done);
  };
  const keepHook = (event: FormEvent) => {
    event.preventDefault();
    void send({ hook: hook.trim() || null }, hook.trim() ? t('newFindingsPostedAddress') : t('findingsNotPostedAny'));
  };
  return (
    <div className={classes.follow}>
      <NativeSelect
        size="xs"
        label={t('eMailDigest')}
        value={digest}
        data={labelled(DIGESTS, (key) => t(key))}
        onChange={(event) => {
          const next = memberOf(
            DIGESTS.map(({ value }) => value),
            event.currentTarget.value,
          );
          setDigest(next);
          void send({ digest: next }, next === 'none' ? t('theDigestIsOff') : t('digestWillYourOutbox'));
        }}
      />
      {isOwner && (
        <form onSubmit={keepHook}>
          <TextInput
            size="xs"
            label={t('postNewFindingsTo')}
            placeholder={t('httpFindings')}
            description={t('addressServerAllowsEmpty')}
            value={hook}
            onChange={(event) => setHook(event.currentTarget.value)}
          />
          <Button size="compact-xs" variant="default" type="submit" mt={6}>
            {t('saveAddress')}
          </Button>
        </form>
      )}
      {notice && <p role="status">{notice}</p>}
      <Link href="/outbox">{t('outbox')}</Link>
    </div>
  );
}
