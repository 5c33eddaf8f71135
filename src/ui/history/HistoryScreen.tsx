'use client';

import { Button } from '@mantine/core';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { useHistory } from './use-history';
import type { SheetId } from '../../core/sheet/ids';
import type { HistoryEntry, HistoryQuery } from '../../protocol/sheet-history';
import { SideScreen } from '../page/SideScreen';
import { SheetViews } from '../sheet/SheetViews';
import classes from './History.module.css';
import { HistoryItem } from './HistoryItem';
import { NameMoment } from './NameMoment';
import { sheetPageUrl } from '../../protocol/sheet-url';

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
  const t = useTranslations('history');
  const { entries, state, message, read, more, takeBack } = useHistory(id, asked, first);
  const [naming, setNaming] = useState<number | null>(null);
  const endNaming = (how?: 'named') => {
    setNaming(null);
    if (how === 'named') void read();
  };

  return (
    <SideScreen name={name} views={<SheetViews sheet={id} view="history" />} person={person}>
      <main className={classes.main}>
        <Asked sheet={id} asked={asked} entries={entries} />
        {message && <p role="status">{message}</p>}
        {entries.length === 0 && <p>{t('noChangesYet')}</p>}
        <ol className={classes.list} aria-label={t('changes')}>
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
            {t('showEarlierChanges')}
          </Button>
        )}
        {state === 'end' && isAll(asked) && (entries.at(-1)?.sequence ?? 1) > 1 && <p>{t('earlierChangesNotKept')}</p>}
        <NameMoment sheet={id} sequence={naming} onEnd={endNaming} />
      </main>
    </SideScreen>
  );
}

/** Whether a query is for the changes of anybody to anything. */
const isAll = ({ field, row, rule, by }: HistoryQuery): boolean =>
  [field, row, rule, by].every((part) => part === undefined);

interface AskedProps {
  readonly sheet: SheetId;
  readonly asked: HistoryQuery;
  readonly entries: readonly HistoryEntry[];
}

/** What the history is narrowed to, with the way back to all of it. */
function Asked({ sheet, asked: { field, row, rule, by }, entries }: AskedProps) {
  const t = useTranslations('history');
  const only = entries[0]?.cells.find(
    (cell) => (field === undefined || cell.field === field) && (row === undefined || cell.row === row),
  );
  const all = <Link href={sheetPageUrl(sheet, 'history')}>{t('showAllChanges')}</Link>;
  if (rule !== undefined)
    return (
      <p className={classes.asked}>
        {t('changesRuleOnly')} {all}
      </p>
    );
  if (field === undefined && row === undefined && by === undefined) return null;
  return (
    <p className={classes.asked}>
      {t('onlyWhat')} {by === undefined ? t('wasEntered') : <b>{entries[0]?.author ?? t('thatPerson')}</b>}{' '}
      {by !== undefined && t('did')}{' '}
      {field !== undefined && (
        <>{t.rich('inLabel', { label: only?.label ?? t('thatField'), b: (chunks) => <b>{chunks}</b> })}</>
      )}{' '}
      {row !== undefined && <>{t('ofRecord', { record: only?.record ?? t('thatRecord') })}</>} {all}
    </p>
  );
}
