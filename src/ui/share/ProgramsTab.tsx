import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import Link from 'next/link';
import { useCallback, useEffect, useState, type FormEvent } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { SCOPES, TOKEN_DAYS, type MadeProgram, type Scope, type SheetProgram } from '../../protocol/programs/scopes';
import { momentWords } from '../moment-words';
import { useSessionState } from '../sheet/use-session';
import { Copy } from './Copy';
import { LoggerPart } from './LoggerPart';
import classes from './Share.module.css';

const USUAL: readonly Scope[] = ['read', 'write'];

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** Programs with a token for the sheet, and a new one. */
export function ProgramsTab({ sheet }: { readonly sheet: SheetId }) {
  const path = sheetUrl(sheet, 'programs');
  const frame = useSessionState((state) => state.frame);
  // The demo's readings have these.
  const hasStations = ['Station', 'Day', 'Dissolved oxygen'].every((label) =>
    frame?.fields.some((field) => field.label === label),
  );
  const [programs, setPrograms] = useState<readonly SheetProgram[] | null>(null);
  const [name, setName] = useState('');
  const [scopes, setScopes] = useState<readonly Scope[]>(USUAL);
  const [days, setDays] = useState<number>(365);
  const [made, setMade] = useState<MadeProgram | null>(null);
  const [error, setError] = useState<string | null>(null);

  const read = useCallback(async () => {
    const sent = await sendJson<SheetProgram[]>(path, { method: 'GET' });
    if ('refused' in sent) setError(sent.refused);
    else setPrograms(sent.answer);
  }, [path]);
  useEffect(() => {
    // What the server says is put on screen when it comes.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    void read();
  }, [read]);

  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError('Say which program it is for');
    if (scopes.length === 0) return setError('Say what it may do');
    const sent = await sendJson<MadeProgram>(path, { body: { name: name.trim(), scopes, days } });
    if ('refused' in sent) return setError(sent.refused);
    setError(null);
    setMade(sent.answer);
    setName('');
    await read();
  };
  const takeBack = async (program: SheetProgram) => {
    const sent = await sendJson(`${path}/${encodeURIComponent(program.id)}`, { method: 'DELETE' });
    setError('refused' in sent ? sent.refused : null);
    if (made?.id === program.id) setMade(null);
    await read();
  };

  return (
    <div className={classes.tab}>
      <p className={classes.note}>
        Programs read records, enter them and hear of findings by a token of their own, good for this sheet alone.{' '}
        <Link href={`/programs?sheet=${encodeURIComponent(sheet)}`}>How they ask</Link>
      </p>
      <form className={classes.form} onSubmit={(event) => void make(event)} noValidate>
        <TextInput
          label="New program"
          placeholder="Its name"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <NativeSelect
          label="Good for"
          value={String(days)}
          onChange={(event) => setDays(Number(event.currentTarget.value))}
          data={TOKEN_DAYS.map((count) => ({
            value: String(count),
            label: count % 365 === 0 ? counted(count / 365, 'year') : counted(count, 'day'),
          }))}
        />
        <Button type="submit">Make a token</Button>
        <Checkbox.Group<Scope>
          label="It may"
          value={[...scopes]}
          onChange={setScopes}
          style={{ flexBasis: '100%' }}
        >
          <div className={classes.scopes}>
            {Object.entries(SCOPES).map(([scope, words]) => (
              <Checkbox key={scope} value={scope} label={words} />
            ))}
          </div>
        </Checkbox.Group>
      </form>
      {error && <p role="alert">{error}</p>}
      {made && (
        <section className={classes.made} aria-label="New token">
          <p className={classes.note}>This token is shown only now: copy it to where “{made.name}” reads it.</p>
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
      )}
      {programs?.length === 0 && <p className={classes.note}>No program has a token.</p>}
      <ul className={classes.list} aria-label="Programs">
        {programs?.map((program) => (
          <li key={program.id} className={classes.item}>
            <span className={classes.who}>
              <b>{program.name}</b>
              <span>
                {program.scopes.join(', ')} · made {momentWords(program.createdAt)}
                {program.endsAt !== null && `, good until ${new Date(program.endsAt).toLocaleDateString()}`} ·{' '}
                {program.usedAt === null ? 'not used yet' : `last used ${momentWords(program.usedAt)}`}
              </span>
            </span>
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`Take back the token of ${program.name}`}
              onClick={() => void takeBack(program)}
            >
              Take it back
            </Button>
          </li>
        ))}
      </ul>
      {hasStations && <LoggerPart sheet={sheet} />}
    </div>
  );
}
