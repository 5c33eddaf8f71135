import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { LINK_WORDS } from './role-words';
import { type LinkRole } from '../../core/sharing/role';
import { memberOf } from '../../core/values/typed-keys';
import type { LinkGives, MadeLink, SheetLink } from '../../protocol/sheet-sharing';
import { counted } from '../counted';
import { momentWords } from '../moment-words';
import { sendJson } from '../../engine/link/send-json';
import { useSession, useSessionState } from '../sheet/use-session';
import { MadeLinks } from './MadeLinks';
import classes from './Share.module.css';

interface Props {
  readonly path: string;
  readonly links: readonly SheetLink[];
  readonly onChange: () => void;
}

/** Links that can be made at once: one, or one for each open field or record. */
const KINDS = [
  { kind: 'viewer', label: LINK_WORDS.viewer },
  { kind: 'all', label: 'to fill in: everybody in all open cells' },
  { kind: 'next-field', label: 'to fill in: each who comes gets an open field' },
  { kind: 'next-row', label: 'to fill in: each who comes gets a record' },
  { kind: 'each-field', label: 'to fill in: one link for each open field' },
  { kind: 'each-row', label: 'to fill in: one link for each record' },
  { kind: 'editor', label: LINK_WORDS.editor },
] as const;
type Kind = (typeof KINDS)[number]['kind'];

/** More records are not given links of their own. */
const MAX_RECORDS = 200;

/** Links to the sheet: those there are, and new ones. */
export function LinksTab({ path, links, onChange }: Props) {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const [kind, setKind] = useState<Kind>('all');
  const [name, setName] = useState('');
  const [ends, setEnds] = useState('');
  const [made, setMade] = useState<readonly MadeLink[]>([]);
  const [error, setError] = useState<string | null>(null);
  const openFields = frame?.fields.filter(({ id }) => frame.filling.open.includes(id)) ?? [];

  const asked = async (): Promise<{ role: LinkRole; name: string; gives: LinkGives }[]> => {
    const called = name.trim() || 'Link';
    if (kind === 'viewer' || kind === 'editor') return [{ role: kind, name: called, gives: { kind: 'all' } }];
    if (kind === 'each-field')
      return openFields.map(({ id, label }) => ({
        role: 'filler',
        name: label,
        gives: { kind: 'fields', fields: [id] },
      }));
    if (kind !== 'each-row') return [{ role: 'filler', name: called, gives: { kind } }];
    const records = await session.ask({ kind: 'ask-records', most: MAX_RECORDS });
    return records.map(({ row, name: record }) => ({
      role: 'filler',
      name: record.slice(0, 80),
      gives: { kind: 'rows', rows: [row] },
    }));
  };
  const make = async (event: FormEvent) => {
    event.preventDefault();
    const isFilling = kind !== 'viewer' && kind !== 'editor';
    if (isFilling && openFields.length === 0 && frame?.filling.openCells.length === 0)
      return setError('Nothing is open for filling in yet: say under “Filling in” where people type.');
    // To the end of the day that was chosen, by the clock of who chose it.
    const endsAt = ends === '' ? null : new Date(`${ends}T23:59:59`).getTime();
    if (endsAt !== null && endsAt < Date.now()) return setError('This day is over. Choose a later one, or none.');
    const wanted = (await asked()).map((link) => ({ ...link, endsAt }));
    if (wanted.length === 0) return setError('There is nothing to make a link for.');
    const sent = await sendJson<MadeLink[]>(`${path}/links`, { body: { links: wanted } });
    if ('refused' in sent) return setError(sent.refused);
    setError(null);
    setMade(sent.answer);
    setName('');
    onChange();
  };
  const takeBack = async (link: SheetLink) => {
    const sent = await sendJson(`${path}/links/${encodeURIComponent(link.id)}`, { method: 'DELETE' });
    setError('refused' in sent ? sent.refused : null);
    onChange();
  };

  return (
    <div className={classes.tab}>
      <form className={classes.form} onSubmit={(event) => void make(event)} noValidate>
        <NativeSelect
          label="New link"
          value={kind}
          data={KINDS.map(({ kind: value, label }) => ({ value, label }))}
          onChange={(event) =>
            setKind(
              memberOf(
                KINDS.map(({ kind: each }) => each),
                event.currentTarget.value,
              ),
            )
          }
        />
        {!kind.startsWith('each') && (
          <TextInput
            label="Its name"
            placeholder="Who it is for"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        )}
        <TextInput
          label="Good until"
          type="date"
          value={ends}
          onChange={(event) => setEnds(event.currentTarget.value)}
        />
        <Button type="submit">Make it</Button>
      </form>
      {error && <p role="alert">{error}</p>}
      {made.length > 0 && <MadeLinks links={made} onClose={() => setMade([])} />}
      {links.length === 0 && (
        <p className={classes.note}>No link lets anybody in. Whoever comes by one needs no account.</p>
      )}
      <ul className={classes.list} aria-label="Links">
        {links.map((link) => (
          <li key={link.id} className={classes.item}>
            <span className={classes.who}>
              <b>{link.name}</b>
              <span>{factsOf(link, openFields).join(' · ')}</span>
              {link.visitors.length > 0 && <span>Came by it: {link.visitors.join(', ')}</span>}
            </span>
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`Take back the link ${link.name}`}
              onClick={() => void takeBack(link)}
            >
              Take it back
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function factsOf(
  { role, gives, invites, endsAt, usedAt }: SheetLink,
  fields: readonly { readonly id: string; readonly label: string }[],
): string[] {
  const what =
    role === 'viewer' ? 'to read' : role === 'editor' ? 'to work on' : `to fill in ${givesWords(gives, fields)}`;
  return [
    invites === null ? what : `an invitation, ${what}`,
    endsAt === null
      ? 'no end'
      : endsAt < Date.now()
        ? `ended ${momentWords(endsAt)}`
        : `good until ${momentWords(endsAt)}`,
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
