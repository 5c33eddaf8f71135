'use client';

import { Button, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { PickRegion } from './PickRegion';
import { sendJson } from '../../engine/link/send-json';
import { Page } from '../page/Page';
import shared from './People.module.css';
import classes from './Account.module.css';
import { Password } from './Password';
import { Sessions } from './Sessions';

interface Props {
  readonly name: string;
  readonly email: string;
  /** The region of numbers and dates; null for that of the browser. */
  readonly region: string | null;
  /** False for the demo's owner, who has none yet. */
  readonly hasPassword: boolean;
}

/** The account: name, password, and the end of every session. */
export const Account = ({ name, email, region, hasPassword }: Props) => {
  const t = useTranslations('people');
  return (
    <Page title={t('yourAccount')} lead={email} isHome>
      <NameForm known={name} />
      <PickRegion region={region} />
      <PasswordForm hasPassword={hasPassword} />
      <SignedIn />
    </Page>
  );
};

const Message = ({ children }: { readonly children: ReactNode }) => (
  <p role="status" className={shared.error}>
    {children}
  </p>
);

function NameForm({ known }: { readonly known: string }) {
  const t = useTranslations('people');
  const router = useRouter();
  const [name, setName] = useState(known);
  const [message, setMessage] = useState<string | null>(null);
  const rename = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await sendJson('/api/account', { method: 'PATCH', body: { name } });
    setMessage('refused' in sent ? sent.refused : t('yourNameWasSaved'));
    router.refresh();
  };
  return (
    <form className={shared.form} onSubmit={(event) => void rename(event)}>
      <TextInput
        label={t('yourNameAsOthers')}
        maxLength={60}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button type="submit" variant="default">
          {t('saveName')}
        </Button>
      </div>
    </form>
  );
}

function PasswordForm({ hasPassword }: { readonly hasPassword: boolean }) {
  const t = useTranslations('people');
  const router = useRouter();
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const change = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await sendJson('/api/account/password', { body: { old, password } });
    setMessage('refused' in sent ? sent.refused : t('passwordWasChangedAll'));
    if ('refused' in sent) return;
    setOld('');
    setPassword('');
    router.refresh();
  };
  return (
    <form className={shared.form} onSubmit={(event) => void change(event)}>
      <h2 className={shared.part}>{hasPassword ? t('changePassword') : t('setAPassword')}</h2>
      {hasPassword ? (
        <Password
          label={t('currentPassword')}
          autoComplete="current-password"
          value={old}
          onChange={(event) => setOld(event.currentTarget.value)}
        />
      ) : (
        <p className={classes.lead}>{t('accountDemosAnybodyAddress')}</p>
      )}
      <Password
        label={t('newPassword')}
        description={t('atLeastCharacters')}
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button type="submit" variant="default">
          {hasPassword ? t('changePassword') : t('setPassword')}
        </Button>
      </div>
    </form>
  );
}

function SignedIn() {
  const t = useTranslations('people');
  const [message, setMessage] = useState<string | null>(null);
  const leave = async (path: string, method: 'POST' | 'DELETE') => {
    const sent = await sendJson(path, { method });
    if ('refused' in sent) setMessage(sent.refused);
    else window.location.assign('/sign-in');
  };
  return (
    <section className={shared.form}>
      <h2 className={shared.part}>{t('whereYouSigned')}</h2>
      <Sessions />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button variant="default" onClick={() => void leave('/api/sign-out', 'POST')}>
          {t('signOut')}
        </Button>
        <Button variant="default" onClick={() => void leave('/api/account/sessions', 'DELETE')}>
          {t('signOutEverywhere')}
        </Button>
      </div>
    </section>
  );
}
