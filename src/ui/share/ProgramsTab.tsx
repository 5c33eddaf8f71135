import Link from 'next/link';
import { useState } from 'react';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import type { MadeProgram, SheetProgram } from '../../protocol/programs/scopes';
import { sheetUrl } from '../../protocol/sheet-url';
import { momentWords } from '../moment-words';
import { useLoaded } from '../page/use-loaded';
import { useSessionState } from '../sheet/use-session';
import { Copy } from './Copy';
import { LoggerPart } from './LoggerPart';
import { NewProgram } from './NewProgram';
import { ShareItem } from './ShareItem';
import classes from './Share.module.css';

/** The labels of the demo's readings, which the logger can enter. */
const READING_LABELS = ['Station', 'Day', 'Dissolved oxygen'];

/** Programs with a token for the sheet, and a new one. */
export function ProgramsTab({ sheet }: { readonly sheet: SheetId }) {
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
        Programs read and enter records and receive findings with a token for this sheet.{' '}
        <Link href={`/programs?sheet=${encodeURIComponent(sheet)}`}>API reference</Link>
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
      {programs?.length === 0 && <p className={classes.note}>No programs yet.</p>}
      <ul className={classes.list} aria-label="Programs">
        {programs?.map((program) => (
          <ShareItem
            key={program.id}
            name={program.name}
            label={`Delete the token of ${program.name}`}
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

const MadeToken = ({ made }: { readonly made: MadeProgram }) => (
  <section className={classes.made} aria-label="New token">
    <p className={classes.note}>Copy this token now: it is not shown again.</p>
    <ul className={classes.list}>
      <li className={classes.item}>
        <span className={classes.who}>
          <b>{made.name}</b>
          <code>{made.token}</code>
        </span>
        <Copy text={made.token} label={`Copy the token of ${made.name}`}>
          Copy
        </Copy>
      </li>
    </ul>
  </section>
);

const factsOf = ({ scopes, createdAt, endsAt, usedAt }: SheetProgram): string =>
  [
    scopes.join(', '),
    `created ${momentWords(createdAt)}${endsAt === null ? '' : `, expires ${new Date(endsAt).toLocaleDateString()}`}`,
    usedAt === null ? 'not used yet' : `last used ${momentWords(usedAt)}`,
  ].join(' · ');
