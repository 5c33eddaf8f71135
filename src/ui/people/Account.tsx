'use client';

import { Button, PasswordInput, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent, type ReactNode } from 'react';
import { sendJson } from '../../engine/link/send-json';
import { Page } from '../page/Page';
import shared from './People.module.css';
import classes from './Account.module.css';
import { Sessions } from './Sessions';

interface Props {
  readonly name: string;
  readonly email: string;
  /** False for the demo's owner, who has none yet. */
  readonly hasPassword: boolean;
}

/** The account: name, password, and the end of every session. */
export const Account = ({ name, email, hasPassword }: Props) => (
  <Page title="Your account" lead={email} isHome>
    <NameForm known={name} />
    <PasswordForm hasPassword={hasPassword} />
    <SignedIn />
  </Page>
);

const Message = ({ children }: { readonly children: ReactNode }) => (
  <p role="status" className={shared.error}>
    {children}
  </p>
);

function NameForm({ known }: { readonly known: string }) {
  const router = useRouter();
  const [name, setName] = useState(known);
  const [message, setMessage] = useState<string | null>(null);
  const rename = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await sendJson('/api/account', { method: 'PATCH', body: { name } });
    setMessage('refused' in sent ? sent.refused : 'Your name was saved.');
    router.refresh();
  };
  return (
    <form className={shared.form} onSubmit={(event) => void rename(event)}>
      <TextInput
        label="Your name, as others see it"
        maxLength={60}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button type="submit" variant="default">
          Save name
        </Button>
      </div>
    </form>
  );
}

function PasswordForm({ hasPassword }: { readonly hasPassword: boolean }) {
  const router = useRouter();
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const change = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await sendJson('/api/account/password', { body: { old, password } });
    setMessage('refused' in sent ? sent.refused : 'The password was changed. All other devices are signed out.');
    if ('refused' in sent) return;
    setOld('');
    setPassword('');
    router.refresh();
  };
  return (
    <form className={shared.form} onSubmit={(event) => void change(event)}>
      <h2 className={shared.part}>{hasPassword ? 'Change password' : 'Set a password'}</h2>
      {hasPassword ? (
        <PasswordInput
          label="Current password"
          autoComplete="current-password"
          value={old}
          onChange={(event) => setOld(event.currentTarget.value)}
        />
      ) : (
        <p className={classes.lead}>
          This account is the demo’s: anybody at this address can open it by one click. With a password, only you can.
        </p>
      )}
      <PasswordInput
        label="New password"
        description="At least 10 characters"
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button type="submit" variant="default">
          {hasPassword ? 'Change password' : 'Set password'}
        </Button>
      </div>
    </form>
  );
}

function SignedIn() {
  const [message, setMessage] = useState<string | null>(null);
  const leave = async (path: string, method: 'POST' | 'DELETE') => {
    const sent = await sendJson(path, { method });
    if ('refused' in sent) setMessage(sent.refused);
    else window.location.assign('/sign-in');
  };
  return (
    <section className={shared.form}>
      <h2 className={shared.part}>Where you are signed in</h2>
      <Sessions />
      {message && <Message>{message}</Message>}
      <div className={shared.acts}>
        <Button variant="default" onClick={() => void leave('/api/sign-out', 'POST')}>
          Sign out
        </Button>
        <Button variant="default" onClick={() => void leave('/api/account/sessions', 'DELETE')}>
          Sign out everywhere
        </Button>
      </div>
    </section>
  );
}
