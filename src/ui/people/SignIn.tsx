'use client';

import { Button, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import { Page } from '../page/Page';
import shared from './People.module.css';
import { Password } from './Password';
import classes from './SignIn.module.css';

interface Props {
  /** Where to go then: a path of this app. */
  readonly to: string;
  /** The demo's owner, where they sign in by one click. */
  readonly demoOwner: string | null;
  /** Why signing in is needed. */
  readonly because?: string | undefined;
  /** The token of the invitation to accept. */
  readonly invitation?: string | undefined;
  readonly mayMakeAccount: boolean;
}

/** Signs in, or makes an account first. */
export function SignIn({ to, demoOwner, because, invitation, mayMakeAccount }: Props) {
  const t = useTranslations('people');
  const [isNew, setIsNew] = useState(false);
  const [given, setGiven] = useState({ email: '', name: '', password: '' });
  const { error, setError, isSending, send } = useSender(to);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const { name, ...known } = given;
    const signIn = { path: '/api/sign-in', body: known };
    if (!isNew) return void send(signIn);
    // The first answer does not tell whether the address has an account.
    void send(
      { path: '/api/sign-up', body: { ...known, name, ...(invitation ? { invitation } : {}) } },
      { ...signIn, refused: t('youCouldNotSigned') },
    );
  };
  const input = (name: keyof typeof given) => ({
    value: given[name],
    onChange: (event: { currentTarget: { value: string } }) =>
      setGiven({ ...given, [name]: event.currentTarget.value }),
  });

  return (
    <Page title={isNew ? t('createAccount') : t('signIn')} lead={because}>
      {demoOwner && (
        <Demo owner={demoOwner} isSending={isSending} onOpen={() => void send({ path: '/api/demo', body: {} })} />
      )}
      <form className={shared.form} onSubmit={submit} noValidate>
        {demoOwner && <h2 className={shared.part}>{isNew ? t('yourAccount') : t('withAnAccount')}</h2>}
        <TextInput label={t('eMail')} type="email" autoComplete="username" maxLength={254} {...input('email')} />
        {isNew && <TextInput label={t('yourNameAsOthers')} autoComplete="name" maxLength={60} {...input('name')} />}
        <Password
          label={t('password')}
          description={isNew ? t('atLeastCharacters') : undefined}
          autoComplete={isNew ? 'new-password' : 'current-password'}
          {...input('password')}
        />
        {error && (
          <p role="alert" className={shared.error}>
            {error}
          </p>
        )}
        <div className={shared.acts}>
          <Button type="submit" variant={demoOwner ? 'default' : 'filled'} loading={isSending}>
            {isNew ? t('createAccount') : t('signIn')}
          </Button>
          {mayMakeAccount && (
            <Button
              variant="subtle"
              onClick={() => {
                setIsNew(!isNew);
                setError(null);
              }}
            >
              {isNew ? t('iHaveAnAccount') : t('createAccount')}
            </Button>
          )}
        </div>
      </form>
    </Page>
  );
}

interface DemoProps {
  readonly owner: string;
  readonly isSending: boolean;
  readonly onOpen: () => void;
}

const Demo = ({ owner, isSending, onOpen }: DemoProps) => {
  const t = useTranslations('people');
  return (
    <section className={classes.demo} aria-label={t('demo')}>
      <p>{t('demoRiverWatchProgramme', { owner })}</p>
      <Button onClick={onOpen} loading={isSending}>
        {t('openDemoAsOwner', { owner })}
      </Button>
    </section>
  );
};

interface SignInRequest {
  readonly path: string;
  readonly body: unknown;
  /** What is said where it is refused, instead of the server's own words. */
  readonly refused?: string;
}

/** Sends one request after the other until one is refused, and goes on to the target page. */
function useSender(to: string) {
  const [error, setError] = useState<string | null>(null);
  const [isSending, setIsSending] = useState(false);
  const send = async (...requests: readonly SignInRequest[]) => {
    setIsSending(true);
    setError(null);
    for (const { path, body, refused } of requests) {
      const sent = await sendJson(path, { body });
      if ('answer' in sent) continue;
      setError(refused ?? sent.refused);
      setIsSending(false);
      return;
    }
    // A whole load: what was fetched for nobody must not stay.
    window.location.assign(to);
  };
  return { error, setError, isSending, send };
}
