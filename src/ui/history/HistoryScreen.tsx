'use client';

import { Button } from '@mantine/core';
import { nanoid } from 'nanoid';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SheetId } from '../../core/sheet/ids';
import { HISTORY_PAGE, type HistoryEntry, type HistoryQuery } from '../../protocol/sheet-history';
import { Mark } from '../sheet/Mark';
import { SheetViews } from '../sheet/SheetViews';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import classes from './History.module.css';
import { HistoryItem } from './HistoryItem';
import { NameMoment } from './NameMoment';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  readonly asked: HistoryQuery;
  readonly first: readonly HistoryEntry[];
}

/** Every change of a sheet, the newest first: who, when and what, as it was after it, and how to take it back. */
export function HistoryScreen({ id, name, asked, first }: Props) {
  const router = useRouter();
  const [older, setOlder] = useState<readonly HistoryEntry[]>([]);
  const [state, setState] = useState<'more' | 'asking' | 'end'>(first.length < HISTORY_PAGE ? 'end' : 'more');
  const [message, setMessage] = useState<string | null>(null);
  const [naming, setNaming] = useState<number | null>(null);
  const path = `/api/sheets/${encodeURIComponent(id)}/history`;
  const entries = [...first, ...older];
  const { field, row } = asked;
  const only = entries[0]?.cells.find((cell) => (field === undefined || cell.field === field) && (row === undefined || cell.row === row));

  const more = async () => {
    setState('asking');
    const query = new URLSearchParams({ before: String(entries.at(-1)!.sequence), ...(field ? { field } : {}), ...(row ? { row } : {}) });
    try {
      const found = (await (await fetch(`${path}?${query}`)).json()) as HistoryEntry[];
      setOlder([...older, ...found]);
      setState(found.length < HISTORY_PAGE ? 'end' : 'more');
    } catch {
      setState('more');
      setMessage('The server cannot be reached. Try again in a moment.');
    }
  };
  const takeBack = async (sequence: number) => {
    setMessage(null);
    try {
      const answer = await fetch(`${path}/${sequence}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id: nanoid() }),
      });
      if (!answer.ok) return setMessage(((await answer.json()) as { refused: string }).refused);
      setMessage(`Change ${sequence} is taken back, by a new change. Cells that were entered anew since then stay as they are.`);
      router.refresh();
    } catch {
      setMessage('The server cannot be reached. Try again in a moment.');
    }
  };

  return (
    <div className={classes.screen}>
      <header className={classes.header}>
        <Link href="/" className={classes.mark} aria-label="All sheets">
          <Mark />
        </Link>
        <h1 className={classes.name}>{name}</h1>
        <SheetViews sheet={id} view="history" />
        <span className={classes.spacer} />
        <ThemeSwitch />
      </header>
      <main className={classes.main}>
        {(field !== undefined || row !== undefined) && (
          <p className={classes.asked}>
            Only what was entered in {field !== undefined && <b>{only?.label ?? 'that field'}</b>}{' '}
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
        <NameMoment sheet={id} sequence={naming} onEnd={() => setNaming(null)} />
      </main>
    </div>
  );
}
