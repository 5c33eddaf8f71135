import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SheetId } from '../../core/sheet/ids';
import { lastItem } from '../../core/values/item-at';
import { sendJson } from '../../engine/link/send-json';
import { HISTORY_PAGE, type HistoryEntry, type HistoryQuery } from '../../protocol/sheet-history';
import { sheetUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

/** The changes of a sheet that a query asks for, page by page, and taking one back. */
export function useHistory(id: SheetId, asked: HistoryQuery, first: readonly HistoryEntry[]) {
  const t = useTranslations('history');
  const [entries, setEntries] = useState(first);
  const [state, setState] = useState<'more' | 'asking' | 'end'>(first.length < HISTORY_PAGE ? 'end' : 'more');
  const [message, setMessage] = useState<string | null>(null);
  const path = sheetUrl(id, 'history');
  const { field, row, rule, by } = asked;

  /** Asks for a page of changes: those before one, or from the newest on. */
  const read = async (before?: number) => {
    const url = withQuery(path, { field, row, rule, by, before });
    const sent = await sendJson<HistoryEntry[]>(url, { method: 'GET' });
    if ('refused' in sent) {
      setMessage(sent.refused);
      return false;
    }
    setEntries(before === undefined ? sent.answer : [...entries, ...sent.answer]);
    setState(sent.answer.length < HISTORY_PAGE ? 'end' : 'more');
    return true;
  };
  const more = async () => {
    setState('asking');
    if (!(await read(lastItem(entries).sequence))) setState('more');
  };
  const takeBack = async (sequence: number) => {
    setMessage(null);
    const sent = await sendJson(`${path}/${sequence}`, { body: { id: nanoid() } });
    if ('refused' in sent) return setMessage(sent.refused);
    setMessage(t('newChangeTakesBack', { sequence }));
    await read();
  };
  return { entries, state, message, read, more, takeBack };
}
