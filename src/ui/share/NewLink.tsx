import { Button, NativeSelect, TextInput } from '@mantine/core';
import { Suspense, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
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
  { kind: 'viewer' },
  { kind: 'all', label: 'fillEveryoneAllOpen' },
  { kind: 'next-field', label: 'fillFieldEachPerson' },
  { kind: 'next-row', label: 'fillRecordEachPerson' },
  { kind: 'each-field', label: 'fillOneLinkEach' },
  { kind: 'each-row', label: 'fillOneLinkEachRecord' },
  { kind: 'editor' },
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
  const t = useTranslations('share');
  const session = useSession();
  const openCells = useSessionState((state) => state.frame?.filling.openCells.length ?? 0);
  const [kind, setKind] = useState<Kind>('all');
  const [name, setName] = useState('');
  const [ends, setEnds] = useState('');
  const [error, setError] = useState<string | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    const isFilling = kind !== 'viewer' && kind !== 'editor';
    if (isFilling && openFields.length + openCells === 0) return setError(t('nothingCanFilledYet'));
    // To the end of the day that was chosen, by the clock of who chose it.
    const endsAt = ends === '' ? null : new Date(`${ends}T23:59:59`).getTime();
    if (endsAt !== null && endsAt < Date.now()) return setError(t('dayPastChooseLater'));
    const links = (await linksOf(kind, name.trim() || t('link'), { session, openFields })).map((link) => ({
      ...link,
      endsAt,
    }));
    if (links.length === 0) return setError(t('thereNoFieldsRecords'));
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
          label={t('newLink')}
          value={kind}
          data={KINDS.map((each) => ({
            value: each.kind,
            label: 'label' in each ? t(each.label) : LINK_ROLE_WORDS[each.kind].link,
          }))}
          onChange={(event) => setKind(memberOf(KIND_NAMES, event.currentTarget.value))}
        />
        {!kind.startsWith('each') && (
          <TextInput
            label={t('name')}
            placeholder={t('whoItIsFor')}
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        )}
        <Suspense fallback={<TextInput label={t('expires')} disabled />}>
          <LazyDayInput label={t('expires')} value={ends} isFuture onChange={setEnds} />
        </Suspense>
        <Button type="submit">{t('createLink')}</Button>
      </form>
      {kind === 'next-field' && <p className={classes.note}>{t('placesInFields', { count: openFields.length })}</p>}
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
