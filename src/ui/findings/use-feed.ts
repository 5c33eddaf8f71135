import { useState } from 'react';
import type { SheetId } from '../../core/sheet/ids';
import { sendJson } from '../../engine/link/send-json';
import { FINDINGS_PAGE, type FindingFeed, type FindingQuery } from '../../protocol/findings';
import { sheetUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

const pathOf = (id: SheetId, resource: string): string => sheetUrl(id, `findings/${resource}`);

/** A feed of findings, of one sheet or of all (`sheet` null), and what can be done with it. */
export function useFeed(sheet: SheetId | null, first: FindingFeed) {
  const [feed, setFeed] = useState(first);
  const [asked, setAsked] = useState<FindingQuery>({ only: 'unseen' });
  const [isEnd, setEnd] = useState(first.findings.length < FINDINGS_PAGE);
  const [message, setMessage] = useState<string | null>(null);
  const path = sheet === null ? '/api/findings' : sheetUrl(sheet, 'findings');

  /** Reads a page of findings: those before one, or from the newest on. */
  const read = async (query: FindingQuery, before?: number) => {
    const sent = await sendJson<FindingFeed>(withQuery(path, { ...query, before }), { method: 'GET' });
    if ('refused' in sent) return setMessage(sent.refused);
    setMessage(null);
    setAsked(query);
    setEnd(sent.answer.findings.length < FINDINGS_PAGE);
    const earlier = before === undefined ? [] : feed.findings;
    setFeed({ ...sent.answer, findings: [...earlier, ...sent.answer.findings] });
  };
  const send = async (
    to: string,
    { method = 'POST', body }: { readonly method?: 'POST' | 'PATCH'; readonly body?: unknown } = {},
  ) => {
    const sent = await sendJson(to, { method, body });
    if ('refused' in sent) return setMessage(sent.refused);
    await read(asked);
  };
  const chosen = feed.rules.find(({ id }) => id === asked.rule);
  const seeAll = () => {
    if (chosen) return send(pathOf(chosen.sheet, 'seen'), { body: { rule: chosen.id } });
    return sheet === null ? send('/api/findings/seen') : send(pathOf(sheet, 'seen'), { body: { all: true } });
  };
  return {
    rules: feed.rules,
    findings: feed.findings,
    asked,
    isEnd,
    message,
    chosen,
    unseen: feed.rules.reduce((sum, rule) => sum + (rule.isMuted ? 0 : rule.unseen), 0),
    /** Reads the feed with another query. */
    ask: (query: FindingQuery) => void read(query),
    more: () => void read(asked, feed.findings.at(-1)?.id),
    seeAll: () => void seeAll(),
    see: (id: SheetId, finding: number) => void send(pathOf(id, 'seen'), { body: { finding } }),
    note: (id: SheetId, finding: number, text: string) => void send(pathOf(id, 'notes'), { body: { finding, text } }),
    follow: (id: SheetId, rule: string, body: unknown) =>
      void send(pathOf(id, `rules/${encodeURIComponent(rule)}`), { method: 'PATCH', body }),
  };
}

export type Feed = ReturnType<typeof useFeed>;
