import { Button } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { sendJson } from '../../engine/link/send-json';
import type { OwnSession } from '../../protocol/own-session';
import { useLoaded } from '../page/use-loaded';
import { useMoments } from '../use-moments';
import classes from './Sessions.module.css';

/** The sessions of the account, each with a way to end it. */
export function Sessions() {
  const t = useTranslations('people');
  const moment = useMoments();
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
      <ul className={classes.sessions} aria-label={t('whereYouSigned')}>
        {sessions?.map((session) => (
          <li key={session.id} className={classes.session}>
            <span>
              <b>{session.isOwn ? t('thisBrowser') : browserWords(session.agent, t)}</b>
              <span className={classes.sessionAbout}>
                {t('sinceLastUsed', {
                  hasClient: String(session.client !== ''),
                  client: session.client,
                  beganAt: moment(session.beganAt),
                  usedAt: moment(session.usedAt),
                })}
              </span>
            </span>
            {!session.isOwn && (
              <Button size="compact-xs" variant="default" onClick={() => void end(session)}>
                {t('signOutThere')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {message && <p role="alert">{message}</p>}
    </>
  );
}

// oxlint-disable-next-line texts/in-catalogue -- proper names, as browsers write them
const SYSTEMS = ['Android', 'iPhone', 'iPad', 'Windows', 'Macintosh', 'CrOS', 'Linux'] as const;

/** The short name of a browser: the computer that it runs on. */
function browserWords(agent: string, t: Texts<'people'>): string {
  const system = SYSTEMS.find((name) => agent.includes(name));
  return system ? t('aBrowserOnSystem', { system }) : agent === '' ? t('unknown') : agent.slice(0, 40);
}
