'use client';

import { Button } from '@mantine/core';
import { nanoid } from 'nanoid';
import Link from 'next/link';
import { useState } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import { HISTORY_PAGE, type HistoryEntry, type HistoryQuery } from '../../protocol/sheet-history';
import { SideScreen } from '../page/SideScreen';
import { sendJson } from '../../engine/link/send-json';
import { SheetViews } from '../sheet/SheetViews';
import classes from './History.module.css';
import { HistoryItem } from './HistoryItem';
import { NameMoment } from './NameMoment';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  readonly asked: HistoryQuery;
  readonly first: readonly HistoryEntry[];
  readonly person: string;
}

/**
 * The history: every change of a sheet, the newest first, with author, time and words; the sheet after it, and its
 * undo.
 */
export function HistoryScreen({ id, name, asked, first, person }: Props) {
  const [entries, setEntries] = useState(first);
  const [state, setState] = useState<'more' | 'asking' | 'end'>(first.length < HISTORY_PAGE ? 'end' : 'more');
  const [message, setMessage] = useState<string | null>(null);
  const [naming, setNaming] = useState<number | null>(null);
  const path = sheetUrl(id, 'history');
  const { field, row, rule, by } = asked;
  const only = entries[0]?.cells.find(
    (cell) => (field === undefined || cell.field === field) && (row === undefined || cell.row === row),
  );

  /** Asks for a page of changes: those before one, or from the newest on. */
  const read = async (before?: number) => {
    const wanted = Object.entries({ field, row, rule, by, before }).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(value)]],
    );
    const sent = await sendJson<HistoryEntry[]>(`${path}?${new URLSearchParams(wanted)}`, { method: 'GET' });
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
    setMessage(
      `Change ${sequence} is taken back, by a new change. Cells that were entered anew since then stay as they are.`,
    );
    await read();
  };

  const endNaming = (how?: 'named') => {
    setNaming(null);
    if (how === 'named') void read();
  };

  return (
    <SideScreen name={name} views={<SheetViews sheet={id} view="history" />} person={person}>
      <main className={classes.main}>
        {rule !== undefined && (
          <p className={classes.asked}>
            Only what was done to that rule{' '}
            <Link href={`/sheets/${encodeURIComponent(id)}/history`}>Show everything</Link>
          </p>
        )}
        {(field !== undefined || row !== undefined || by !== undefined) && (
          <p className={classes.asked}>
            Only what {by === undefined ? 'was entered' : <b>{entries[0]?.author ?? 'that person'}</b>}{' '}
            {by !== undefined && 'did'}{' '}
            {field !== undefined && (
              <>
                in <b>{only?.label ?? 'that field'}</b>
              </>
            )}{' '}
            {row !== undefined && <>of {only?.record ?? 'that record'}</>}{' '}
            <Link href={`/sheets/${encodeURIComponent(id)}/history`}>Show everything</Link>
          </p>
        )}
        {message && <p role="status">{message}</p>}
        {entries.length === 0 && <p>Nothing has been changed yet since the sheet was made.</p>}
        <ol className={classes.list} aria-label="Changes">
          {entries.map((entry) => (
            <HistoryItem
              key={entry.sequence}
              sheet={id}
              entry={entry}
              onTakeBack={() => void takeBack(entry.sequence)}
              onName={() => setNaming(entry.sequence)}
            />
          ))}
        </ol>
        {state !== 'end' && (
          <Button variant="default" loading={state === 'asking'} onClick={() => void more()}>
            Show earlier changes
          </Button>
        )}
        <NameMoment sheet={id} sequence={naming} onEnd={endNaming} />
      </main>
    </SideScreen>
  );
}
