'use client';

import { Button, SegmentedControl } from '@mantine/core';
import Link from 'next/link';
import { useState } from 'react';
import type { SheetId } from '../../core/sheet/ids';
import { FINDINGS_PAGE, type FindingFeed, type FindingQuery, type FollowSettings } from '../../protocol/findings';
import { PersonMenu } from '../people/PersonMenu';
import { sendJson } from '../send-json';
import { Mark } from '../sheet/Mark';
import { SheetViews } from '../sheet/SheetViews';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import { FindingItem } from './FindingItem';
import classes from './Findings.module.css';
import { FollowForm } from './FollowForm';
import { RuleFollow } from './RuleFollow';

interface Props {
  /** The sheet whose findings these are; null for those of all sheets. */
  readonly sheet: { readonly id: SheetId; readonly name: string; readonly settings: FollowSettings; readonly isOwner: boolean } | null;
  readonly first: FindingFeed;
  readonly person: string;
}

/** What entered and left each rule, the newest first: since one last looked, or all of it. */
export function FindingsScreen({ sheet, first, person }: Props) {
  const [feed, setFeed] = useState(first);
  const [asked, setAsked] = useState<FindingQuery>({ only: 'unseen' });
  const [isEnd, setEnd] = useState(first.findings.length < FINDINGS_PAGE);
  const [message, setMessage] = useState<string | null>(null);
  const path = sheet ? `/api/sheets/${encodeURIComponent(sheet.id)}/findings` : '/api/findings';

  /** Asks for the feed anew, or for what comes after what is there. */
  const read = async (query: FindingQuery, how: 'anew' | 'more' = 'anew') => {
    const before = how === 'more' ? feed.findings.at(-1)?.id : undefined;
    const wanted = Object.entries({ ...query, before }).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]]));
    const sent = await sendJson<FindingFeed>(`${path}?${new URLSearchParams(wanted)}`, { method: 'GET' });
    if ('refused' in sent) return setMessage(sent.refused);
    setAsked(query);
    setEnd(sent.answer.findings.length < FINDINGS_PAGE);
    setFeed(how === 'more' ? { ...sent.answer, findings: [...feed.findings, ...sent.answer.findings] } : sent.answer);
  };
  const act = async (of: SheetId, what: string, { method = 'POST', body }: { readonly method?: 'POST' | 'PATCH'; readonly body: unknown }) => {
    const sent = await sendJson(`/api/sheets/${encodeURIComponent(of)}/findings/${what}`, { method, body });
    if ('refused' in sent) return setMessage(sent.refused);
    setMessage(null);
    await read(asked);
  };
  const seeAll = async () => {
    const sheets = new Set(feed.rules.map((rule) => rule.sheet));
    for (const id of sheets) await sendJson(`/api/sheets/${encodeURIComponent(id)}/findings/seen`, { body: { all: true } });
    await read(asked);
  };
  const chosen = feed.rules.find(({ id }) => id === asked.rule);
  const unseen = feed.rules.reduce((sum, rule) => sum + (rule.isMuted ? 0 : rule.unseen), 0);

  return (
    <div className={classes.screen}>
      <header className={classes.header}>
        <Link href="/" className={classes.mark} aria-label="All sheets">
          <Mark />
        </Link>
        <h1 className={classes.name}>{sheet?.name ?? 'Findings'}</h1>
        {sheet && <SheetViews sheet={sheet.id} view="findings" />}
        <span className={classes.spacer} />
        <ThemeSwitch />
        <PersonMenu person={{ name: person, hasAccount: true }} />
      </header>
      <main className={classes.main}>
        <section className={classes.rules} aria-label="Rules">
          {feed.rules.length === 0 && <p className={classes.none}>Nothing has entered or left a rule yet.</p>}
          <ul className={classes.list}>
            {feed.rules.map((rule) => (
              <RuleFollow
                key={`${rule.sheet} ${rule.id}`}
                rule={rule}
                isChosen={rule.id === asked.rule}
                onChoose={() => void read({ ...asked, rule: rule.id === asked.rule ? undefined : rule.id })}
                onChange={(body) => void act(rule.sheet, `rules/${encodeURIComponent(rule.id)}`, { method: 'PATCH', body })}
              />
            ))}
          </ul>
          {sheet && <FollowForm sheet={sheet.id} settings={sheet.settings} isOwner={sheet.isOwner} />}
        </section>
        <section className={classes.feed} aria-label="Findings">
          <div className={classes.head}>
            <SegmentedControl
              size="xs"
              aria-label="Which findings"
              value={asked.only ?? 'all'}
              data={[
                { value: 'unseen', label: `Since you last looked (${unseen})` },
                { value: 'all', label: 'All of them' },
              ]}
              onChange={(only) => void read({ ...asked, only: only === 'unseen' ? 'unseen' : undefined })}
            />
            {unseen > 0 && (
              <Button
                size="compact-sm"
                variant="default"
                onClick={() => (chosen ? void act(chosen.sheet, 'seen', { body: { rule: chosen.id } }) : void seeAll())}
              >
                {chosen ? `Mark all of ${chosen.name} as seen` : 'Mark all as seen'}
              </Button>
            )}
          </div>
          {message && <p role="alert">{message}</p>}
          {feed.findings.length === 0 && (
            <p className={classes.none}>{asked.only ? 'Nothing new since you last looked.' : 'There are no findings.'}</p>
          )}
          <ol className={classes.list} aria-label="Findings">
            {feed.findings.map((finding) => (
              <FindingItem
                key={finding.id}
                finding={finding}
                showsSheet={sheet === null}
                onSee={() => void act(finding.sheet, 'seen', { body: { finding: finding.id } })}
                onNote={(text) => void act(finding.sheet, 'notes', { body: { finding: finding.id, text } })}
              />
            ))}
          </ol>
          {!isEnd && (
            <Button variant="default" onClick={() => void read(asked, 'more')}>
              Show earlier ones
            </Button>
          )}
        </section>
      </main>
    </div>
  );
}
