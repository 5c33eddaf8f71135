import { Button, NativeSelect, TextInput } from '@mantine/core';
import { Suspense, useState, type FormEvent } from 'react';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import type { LinkRole } from '../../core/sharing/role';
import { memberOf } from '../../core/values/typed-keys';
import { sendJson } from '../../engine/link/send-json';
import type { LinkGives, MadeLink } from '../../protocol/sheet-sharing';
import { LazyDayInput } from '../dates/lazy-days';
import { useSession, useSessionState } from '../sheet/use-session';
import type { Session } from '../sheet/session';
import classes from './Share.module.css';

/** Links that can be made at once: one, or one for each open field or record. */
const KINDS = [
  { kind: 'viewer', label: LINK_ROLE_WORDS.viewer.link },
  { kind: 'all', label: 'Fill in: everyone in all open cells' },
  { kind: 'next-field', label: 'Fill in: a field for each person' },
  { kind: 'next-row', label: 'Fill in: a record for each person' },
  { kind: 'each-field', label: 'Fill in: one link for each open field' },
  { kind: 'each-row', label: 'Fill in: one link for each record' },
  { kind: 'editor', label: LINK_ROLE_WORDS.editor.link },
] as const;
type Kind = (typeof KINDS)[number]['kind'];
const KIND_NAMES = KINDS.map(({ kind }) => kind);

/** More records are not given links of their own. */
const MAX_RECORDS = 200;

type OpenField = { readonly id: string; readonly label: string };

interface WantedLink {
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
}

interface Props {
  readonly path: string;
  readonly openFields: readonly OpenField[];
  readonly onMade: (links: readonly MadeLink[]) => void;
}

/** Makes a link to the sheet, or one for each open field or record. */
export function NewLink({ path, openFields, onMade }: Props) {
  const session = useSession();
  const openCells = useSessionState((state) => state.frame?.filling.openCells.length ?? 0);
  const [kind, setKind] = useState<Kind>('all');
  const [name, setName] = useState('');
  const [ends, setEnds] = useState('');
  const [error, setError] = useState<string | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    const isFilling = kind !== 'viewer' && kind !== 'editor';
    if (isFilling && openFields.length + openCells === 0)
      return setError('Nothing can be filled in yet. Choose fields under “Filling in” first.');
    // To the end of the day that was chosen, by the clock of who chose it.
    const endsAt = ends === '' ? null : new Date(`${ends}T23:59:59`).getTime();
    if (endsAt !== null && endsAt < Date.now())
      return setError('This day is in the past. Choose a later one, or none.');
    const links = (await linksOf(kind, name.trim() || 'Link', { session, openFields })).map((link) => ({
      ...link,
      endsAt,
    }));
    if (links.length === 0) return setError('There are no fields or records to create links for.');
    const sent = await sendJson<MadeLink[]>(`${path}/links`, { body: { links } });
    if ('refused' in sent) return setError(sent.refused);
    setError(null);
    setName('');
    onMade(sent.answer);
  };
  return (
    <>
      <form className={classes.form} onSubmit={(event) => void make(event)} noValidate>
        <NativeSelect
          label="New link"
          value={kind}
          data={KINDS.map(({ kind: value, label }) => ({ value, label }))}
          onChange={(event) => setKind(memberOf(KIND_NAMES, event.currentTarget.value))}
        />
        {!kind.startsWith('each') && (
          <TextInput
            label="Name"
            placeholder="Who it is for"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        )}
        <Suspense fallback={<TextInput label="Expires" disabled />}>
          <LazyDayInput label="Expires" value={ends} isFuture onChange={setEnds} />
        </Suspense>
        <Button type="submit">Create link</Button>
      </form>
      {error && <p role="alert">{error}</p>}
    </>
  );
}

/** The links of a kind: one, or one for each open field or record. */
async function linksOf(
  kind: Kind,
  name: string,
  { session, openFields }: { readonly session: Session; readonly openFields: readonly OpenField[] },
): Promise<readonly WantedLink[]> {
  if (kind === 'viewer' || kind === 'editor') return [{ role: kind, name, gives: { kind: 'all' } }];
  if (kind === 'each-field')
    return openFields.map(({ id, label }) => ({
      role: 'filler',
      name: label,
      gives: { kind: 'fields', fields: [id] },
    }));
  if (kind !== 'each-row') return [{ role: 'filler', name, gives: { kind } }];
  const records = await session.ask({ kind: 'ask-records', most: MAX_RECORDS });
  return records.map(({ row, name: record }) => ({
    role: 'filler',
    name: record.slice(0, 80),
    gives: { kind: 'rows', rows: [row] },
  }));
}
