import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { isFiller } from '../../core/sharing/role';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import type { LinkGives, MadeLink, SheetLink } from '../../protocol/sheet-sharing';
import { useMoments } from '../use-moments';
import { sendJson } from '../../engine/link/send-json';
import { useSessionState } from '../sheet/use-session';
import { MadeLinks } from './MadeLinks';
import { NewLink } from './NewLink';
import { ShareItem } from './ShareItem';
import classes from './Share.module.css';

interface Props {
  readonly path: string;
  readonly links: readonly SheetLink[];
  readonly onChange: () => void;
}

/** Links to the sheet: those there are, and new ones. */
export function LinksTab({ path, links, onChange }: Props) {
  const t = useTranslations('share');
  const factsOf = useFacts();
  const frame = useSessionState((state) => state.frame);
  const [made, setMade] = useState<readonly MadeLink[]>([]);
  const [error, setError] = useState<string | null>(null);
  const openFields = frame?.fields.filter(({ id }) => frame.filling.open.includes(id)) ?? [];
  const takeBack = async (link: SheetLink) => {
    const sent = await sendJson(`${path}/links/${encodeURIComponent(link.id)}`, { method: 'DELETE' });
    setError('refused' in sent ? sent.refused : null);
    onChange();
  };
  return (
    <div className={classes.tab}>
      <NewLink
        path={path}
        openFields={openFields}
        onMade={(fresh) => {
          setMade(fresh);
          onChange();
        }}
      />
      {error && <p role="alert">{error}</p>}
      {made.length > 0 && <MadeLinks links={made} onClose={() => setMade([])} />}
      {links.length === 0 && <p className={classes.note}>{t('noLinksYetPeople')}</p>}
      <ul className={classes.list} aria-label={t('links')}>
        {links.map((link) => (
          <ShareItem
            key={link.id}
            name={link.name}
            label={t('deleteTheLinkName', { name: link.name })}
            onTakeBack={() => void takeBack(link)}
          >
            <span>{factsOf(link, openFields).join(' · ')}</span>
            {link.visitors.length > 0 && <span>{t('openedByVisitors', { visitors: link.visitors.join(', ') })}</span>}
          </ShareItem>
        ))}
      </ul>
    </div>
  );
}

type Fields = readonly { readonly id: string; readonly label: string }[];

function useFacts(): (link: SheetLink, fields: Fields) => readonly string[] {
  const t = useTranslations('share');
  const moment = useMoments();
  return ({ role, gives, invites, endsAt, usedAt }, fields) => {
    const what = LINK_ROLE_WORDS[role].brief + (isFiller(role) ? ` ${givesWords(gives, fields, t)}` : '');
    return [
      invites === null ? what : t('anInvitationWhat', { what }),
      endsAt === null
        ? t('neverExpires')
        : endsAt < Date.now()
          ? t('expiredAt', { at: moment(endsAt) })
          : t('expiresAt', { at: moment(endsAt) }),
      usedAt === null ? t('notUsedYet') : t('lastUsedAt', { at: moment(usedAt) }),
    ];
  };
}

function givesWords(gives: LinkGives, fields: Fields, t: Texts<'share'>): string {
  switch (gives.kind) {
    case 'all':
      return t('allOpenCells');
    case 'fields':
      return gives.fields.map((id) => fields.find((field) => field.id === id)?.label ?? t('fieldNotOpen')).join(', ');
    case 'rows':
      return t('countRecords', { count: gives.rows.length });
    case 'next-field':
      return t('anOpenFieldEach');
    case 'next-row':
      return t('aRecordEach');
  }
}
