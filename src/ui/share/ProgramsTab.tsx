import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import type { MadeProgram, SheetProgram } from '../../protocol/programs/scopes';
import { sheetUrl } from '../../protocol/sheet-url';
import { useMoments } from '../use-moments';
import { useLoaded } from '../page/use-loaded';
import { useSessionState } from '../sheet/use-session';
import { Copy } from './Copy';
import { LoggerPart } from './LoggerPart';
import { NewProgram } from './NewProgram';
import { ShareItem } from './ShareItem';
import classes from './Share.module.css';

/** The labels of the demo's readings, which the logger can enter. */
// oxlint-disable-next-line texts/in-catalogue -- fields of the demo's sheet
const READING_LABELS = ['Station', 'Day', 'Dissolved oxygen'];

/** Programs with a token for the sheet, and a new one. */
export function ProgramsTab({ sheet }: { readonly sheet: SheetId }) {
  const t = useTranslations('share');
  const factsOf = useFacts();
  const path = sheetUrl(sheet, 'programs');
  const frame = useSessionState((state) => state.frame);
  const hasStations = READING_LABELS.every((label) => frame?.fields.some((field) => field.label === label));
  const { value: programs, error, reload } = useLoaded<SheetProgram[]>(path);
  const [made, setMade] = useState<MadeProgram | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const takeBack = async (program: SheetProgram) => {
    const sent = await sendJson(`${path}/${encodeURIComponent(program.id)}`, { method: 'DELETE' });
    setRefused('refused' in sent ? sent.refused : null);
    if (made?.id === program.id) setMade(null);
    reload();
  };
  const message = refused ?? error;
  return (
    <div className={classes.tab}>
      <p className={classes.note}>
        {t('programsReadEnterRecords')}{' '}
        <Link href={`/programs?sheet=${encodeURIComponent(sheet)}`}>{t('apiReference')}</Link>
      </p>
      <NewProgram
        path={path}
        onMade={(program) => {
          setMade(program);
          reload();
        }}
      />
      {message && <p role="alert">{message}</p>}
      {made && <MadeToken made={made} />}
      {programs?.length === 0 && <p className={classes.note}>{t('noProgramsYet')}</p>}
      <ul className={classes.list} aria-label={t('programs')}>
        {programs?.map((program) => (
          <ShareItem
            key={program.id}
            name={program.name}
            label={t('deleteTokenName', { name: program.name })}
            onTakeBack={() => void takeBack(program)}
          >
            <span>{factsOf(program)}</span>
          </ShareItem>
        ))}
      </ul>
      {hasStations && <LoggerPart sheet={sheet} />}
    </div>
  );
}

const MadeToken = ({ made }: { readonly made: MadeProgram }) => {
  const t = useTranslations('share');
  return (
    <section className={classes.made} aria-label={t('newToken')}>
      <p className={classes.note}>{t('copyTokenNowNot')}</p>
      <ul className={classes.list}>
        <li className={classes.item}>
          <span className={classes.who}>
            <b>{made.name}</b>
            <code>{made.token}</code>
          </span>
          <Copy text={made.token} label={t('copyTokenName', { name: made.name })}>
            {t('copy')}
          </Copy>
        </li>
      </ul>
    </section>
  );
};

/** What a program may do, since when, until when, and when it last did. */
function useFacts(): (program: SheetProgram) => string {
  const t = useTranslations('share');
  const moment = useMoments();
  return ({ scopes, createdAt, endsAt, usedAt }) =>
    [
      scopes.join(', '),
      t('createdAt', { at: moment(createdAt) }),
      ...(endsAt === null ? [] : [t('expiresAt', { at: moment(endsAt) })]),
      usedAt === null ? t('notUsedYet') : t('lastUsedAt', { at: moment(usedAt) }),
    ].join(' · ');
}
