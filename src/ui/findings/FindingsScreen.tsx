'use client';

import { Button, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import { FINDINGS_PAGE, type FindingFeed, type FindingQuery, type FollowSettings } from '../../protocol/findings';
import { SideScreen } from '../page/SideScreen';
import { sendJson } from '../../engine/link/send-json';
import { SheetViews } from '../sheet/SheetViews';
import { FindingItem } from './FindingItem';
import classes from './Findings.module.css';
import { FollowForm } from './FollowForm';
import { RuleFollow } from './RuleFollow';

interface Props {
  /** The sheet whose findings these are; null for those of all sheets. */
  readonly sheet: {
    readonly id: SheetId;
    readonly name: string;
    readonly settings: FollowSettings;
    readonly isOwner: boolean;
  } | null;
  readonly first: FindingFeed;
  readonly person: string;
}

/** The findings of each rule, the newest first: since the last visit, or all of them. */
export function FindingsScreen({ sheet, first, person }: Props) {
  const [feed, setFeed] = useState(first);
  const [asked, setAsked] = useState<FindingQuery>({ only: 'unseen' });
  const [isEnd, setEnd] = useState(first.findings.length < FINDINGS_PAGE);
  const [message, setMessage] = useState<string | null>(null);
  const path = sheet ? sheetUrl(sheet.id, 'findings') : '/api/findings';

  /** Reads the feed again, or what comes after it. */
  const read = async (query: FindingQuery, how: 'anew' | 'more' = 'anew') => {
    const before = how === 'more' ? feed.findings.at(-1)?.id : undefined;
    const wanted = Object.entries({ ...query, before }).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(value)]],
    );
    const sent = await sendJson<FindingFeed>(`${path}?${new URLSearchParams(wanted)}`, { method: 'GET' });
    if ('refused' in sent) return setMessage(sent.refused);
    setAsked(query);
    setEnd(sent.answer.findings.length < FINDINGS_PAGE);
    setFeed(how === 'more' ? { ...sent.answer, findings: [...feed.findings, ...sent.answer.findings] } : sent.answer);
  };
  const send = async (
    to: string,
    { method = 'POST', body }: { readonly method?: 'POST' | 'PATCH'; readonly body?: unknown } = {},
  ) => {
    const sent = await sendJson(to, { method, body });
    if ('refused' in sent) return setMessage(sent.refused);
    setMessage(null);
    await read(asked);
  };
  const of = (id: SheetId, what: string) => sheetUrl(id, `findings/${what}`);
  const chosen = feed.rules.find(({ id }) => id === asked.rule);
  const seeAll = () => {
    if (chosen) return send(of(chosen.sheet, 'seen'), { body: { rule: chosen.id } });
    return sheet ? send(of(sheet.id, 'seen'), { body: { all: true } }) : send('/api/findings/seen');
  };
  const unseen = feed.rules.reduce((sum, rule) => sum + (rule.isMuted ? 0 : rule.unseen), 0);

  return (
    <SideScreen
      name={sheet?.name ?? 'Findings'}
      views={sheet && <SheetViews sheet={sheet.id} view="findings" />}
      person={person}
    >
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
                onChange={(body) =>
                  void send(of(rule.sheet, `rules/${encodeURIComponent(rule.id)}`), { method: 'PATCH', body })
                }
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
              <Button size="compact-sm" variant="default" onClick={() => void seeAll()}>
                {chosen ? `Mark all of ${chosen.name} as seen` : 'Mark all as seen'}
              </Button>
            )}
          </div>
          {message && <p role="alert">{message}</p>}
          {feed.findings.length === 0 && (
            <p className={classes.none}>
              {asked.only ? 'Nothing new since you last looked.' : 'There are no findings.'}
            </p>
          )}
          <ol className={classes.list} aria-label="Findings">
            {feed.findings.map((finding) => (
              <FindingItem
                key={finding.id}
                finding={finding}
                showsSheet={sheet === null}
                onSee={() => void send(of(finding.sheet, 'seen'), { body: { finding: finding.id } })}
                onNote={(text) => void send(of(finding.sheet, 'notes'), { body: { finding: finding.id, text } })}
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
    </SideScreen>
  );
}
