import { counted } from '../../core/values/counted';
import { useState } from 'react';
import { isFiller } from '../../core/sharing/role';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import type { LinkGives, MadeLink, SheetLink } from '../../protocol/sheet-sharing';
import { momentWords } from '../moment-words';
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
      {links.length === 0 && <p className={classes.note}>No links yet. People who open a link need no account.</p>}
      <ul className={classes.list} aria-label="Links">
        {links.map((link) => (
          <ShareItem
            key={link.id}
            name={link.name}
            label={`Delete the link ${link.name}`}
            onTakeBack={() => void takeBack(link)}
          >
            <span>{factsOf(link, openFields).join(' · ')}</span>
            {link.visitors.length > 0 && <span>Opened by: {link.visitors.join(', ')}</span>}
          </ShareItem>
        ))}
      </ul>
    </div>
  );
}

function factsOf(
  { role, gives, invites, endsAt, usedAt }: SheetLink,
  fields: readonly { readonly id: string; readonly label: string }[],
): string[] {
  const what = LINK_ROLE_WORDS[role].brief + (isFiller(role) ? ` ${givesWords(gives, fields)}` : '');
  return [
    invites === null ? what : `an invitation, ${what}`,
    endsAt === null
      ? 'never expires'
      : endsAt < Date.now()
        ? `expired ${momentWords(endsAt)}`
        : `expires ${momentWords(endsAt)}`,
    usedAt === null ? 'not used yet' : `last used ${momentWords(usedAt)}`,
  ];
}

function givesWords(gives: LinkGives, fields: readonly { readonly id: string; readonly label: string }[]): string {
  switch (gives.kind) {
    case 'all':
      return 'all open cells';
    case 'fields':
      return gives.fields
        .map((id) => fields.find((field) => field.id === id)?.label ?? 'a field that is not open')
        .join(', ');
    case 'rows':
      return gives.rows.length === 1 ? 'one record' : counted(gives.rows.length, 'record');
    case 'next-field':
      return 'an open field each';
    case 'next-row':
      return 'a record each';
  }
}
