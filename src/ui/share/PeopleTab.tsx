import { Button, NativeSelect, TextInput } from '@mantine/core';
import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { ROLE_WORDS } from '../../core/sharing/role-words';
import { memberOf } from '../../core/values/typed-keys';
import { LINK_ROLES, SHEET_ROLES, type SheetRole, type LinkRole } from '../../core/sharing/role';
import type { MadeLink, Member } from '../../protocol/sheet-sharing';
import { sendJson } from '../../engine/link/send-json';
import { MadeLinks } from './MadeLinks';
import classes from './Share.module.css';

interface Props {
  readonly path: string;
  readonly members: readonly Member[];
  readonly onChange: () => void;
}

/** People with an account who have access, and invitations to more. */
export function PeopleTab({ path, members, onChange }: Props) {
  const t = useTranslations('share');
  const [error, setError] = useState<string | null>(null);
  const change = async (member: Member, next: SheetRole | null) => {
    const sent = await sendJson(
      `${path}/members/${encodeURIComponent(member.id)}`,
      next === null ? { method: 'DELETE' } : { method: 'PATCH', body: { role: next } },
    );
    setError('refused' in sent ? sent.refused : null);
    onChange();
  };
  return (
    <div className={classes.tab}>
      <ul className={classes.list} aria-label={t('peopleWhoHaveSheet')}>
        {members.map((member) => (
          <li key={member.id} className={classes.item}>
            <span className={classes.who}>
              <b>{member.name}</b>
              <span>{member.email}</span>
            </span>
            <NativeSelect
              size="xs"
              aria-label={t('roleOfName', { name: member.name })}
              value={member.role}
              data={SHEET_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
              onChange={(event) => void change(member, memberOf(SHEET_ROLES, event.currentTarget.value))}
            />
            <Button
              size="compact-xs"
              variant="default"
              aria-label={t('removeName', { name: member.name })}
              onClick={() => void change(member, null)}
            >
              {t('remove')}
            </Button>
          </li>
        ))}
      </ul>
      {error && <p role="alert">{error}</p>}
      <Invite path={path} onInvited={onChange} />
    </div>
  );
}

interface InviteProps {
  readonly path: string;
  readonly onInvited: () => void;
}

/** Invites somebody by mail, with a role. */
function Invite({ path, onInvited }: InviteProps) {
  const t = useTranslations('share');
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<LinkRole>('editor');
  const [error, setError] = useState<string | null>(null);
  const [made, setMade] = useState<MadeLink | null>(null);
  const invite = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await sendJson<MadeLink>(`${path}/invitations`, { body: { email, role } });
    if ('refused' in sent) return setError(sent.refused);
    setError(null);
    setMade(sent.answer);
    setEmail('');
    onInvited();
  };
  return (
    <>
      {error && <p role="alert">{error}</p>}
      <form className={classes.form} onSubmit={(event) => void invite(event)} noValidate>
        <TextInput
          label={t('inviteAPerson')}
          placeholder={t('eMail')}
          type="email"
          value={email}
          onChange={(event) => setEmail(event.currentTarget.value)}
        />
        <NativeSelect
          label={t('role')}
          value={role}
          data={LINK_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
          onChange={(event) => setRole(memberOf(LINK_ROLES, event.currentTarget.value))}
        />
        <Button type="submit">{t('invite')}</Button>
      </form>
      {made && (
        <>
          <MadeLinks links={[made]} onClose={() => setMade(null)} />
          <p className={classes.note}>
            {t('theInvitationIsIn')} <Link href="/outbox">{t('yourOutbox')}</Link>
            {t('appSendsNoMail')}
          </p>
        </>
      )}
    </>
  );
}
