import { Menu, UnstyledButton } from '@mantine/core';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { sendJson } from '../../engine/link/send-json';
import { initialsOf } from './initials';
import classes from './PersonMenu.module.css';

/** The person: with an account, or a visitor who came by a link. */
export interface Person {
  readonly name: string;
  readonly hasAccount: boolean;
  /** The name under which the person's changes are recorded, where that matters. */
  readonly key?: string;
}

/** The person and what belongs to them: account, outbox, signing out. */
export function PersonMenu({ person: { name, hasAccount } }: { readonly person: Person }) {
  const t = useTranslations('people');
  const signOut = async () => {
    await sendJson('/api/sign-out');
    window.location.assign('/sign-in');
  };
  const who = (
    <>
      <span className={classes.initials} aria-hidden>
        {initialsOf(name)}
      </span>
      <span className={classes.name}>{name}</span>
    </>
  );
  if (!hasAccount)
    return (
      <span className={classes.person} role="group" aria-label={t('youAreName', { name })}>
        {who}
      </span>
    );
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <UnstyledButton className={classes.person} aria-label={t('youAreName', { name })}>
          {who}
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item component={Link} href="/account">
          {t('yourAccount')}
        </Menu.Item>
        <Menu.Item component={Link} href="/outbox">
          {t('outbox')}
        </Menu.Item>
        <Menu.Item onClick={() => void signOut()}>{t('signOut')}</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
