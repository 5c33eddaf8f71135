import { Button } from '@mantine/core';
import { useState } from 'react';
import { sendJson } from '../../engine/link/send-json';
import type { OwnSession } from '../../protocol/own-session';
import { useLoaded } from '../page/use-loaded';
import { momentWords } from '../moment-words';
import classes from './Sessions.module.css';

/** The sessions of the account, each with a way to end it. */
export function Sessions() {
  const { value: sessions, error, reload } = useLoaded<OwnSession[]>('/api/account/sessions');
  const [refused, setRefused] = useState<string | null>(null);
  const message = refused ?? error;

  const end = async (session: OwnSession) => {
    const sent = await sendJson(`/api/account/sessions/${encodeURIComponent(session.id)}`, { method: 'DELETE' });
    setRefused('refused' in sent ? sent.refused : null);
    reload();
  };

  return (
    <>
      <ul className={classes.sessions} aria-label="Where you are signed in">
        {sessions?.map((session) => (
          <li key={session.id} className={classes.session}>
            <span>
              <b>{session.isOwn ? 'This browser' : browserWords(session.agent)}</b>
              <span className={classes.sessionAbout}>
                {session.client ? `from ${session.client}, ` : ''}since {momentWords(session.beganAt)}, last used{' '}
                {momentWords(session.usedAt)}
              </span>
            </span>
            {!session.isOwn && (
              <Button size="compact-xs" variant="default" onClick={() => void end(session)}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {message && <p role="alert">{message}</p>}
    </>
  );
}

const SYSTEMS = ['Android', 'iPhone', 'iPad', 'Windows', 'Macintosh', 'CrOS', 'Linux'] as const;

/** The short name of a browser: the computer that it runs on. */
function browserWords(agent: string): string {
  const system = SYSTEMS.find((name) => agent.includes(name));
  return system ? `A browser on ${system}` : agent === '' ? 'Unknown' : agent.slice(0, 40);
}
