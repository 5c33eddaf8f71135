import { Button, TextInput } from '@mantine/core';
import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { Finding } from '../../protocol/findings';
import { useMoments } from '../use-moments';
import classes from './FindingItem.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

interface Props {
  readonly finding: Finding;
  readonly showsSheet: boolean;
  readonly onSee: () => void;
  readonly onNote: (text: string) => void;
}

/** One cell that entered or left a rule: what it held before and after, by whom and when. */
export function FindingItem({ finding, showsSheet, onSee, onNote }: Props) {
  const t = useTranslations('findings');
  const moment = useMoments();
  const { sheet, sheetName, ruleName, outcome, way, row, field, record, label, before, after, by, at, isSeen, notes } =
    finding;
  const cell = withQuery(sheetPageUrl(sheet), { row, field });
  return (
    <li className={classes.item} data-way={way} data-seen={isSeen || undefined}>
      <p>
        <Link href={cell} className={classes.record}>
          {record}
        </Link>{' '}
        {way} <b>{ruleName}</b>
        {outcome !== '' && <> ({outcome})</>}
        {showsSheet && <span className={classes.sheet}> {t('inSheetName', { sheetName })}</span>}
      </p>
      <p className={classes.values}>
        {label}: {before !== after && <del>{before || t('blank')}</del>} <ins>{after || t('blank')}</ins>
        {before === after && <span> {t('asBeforeWhatCompared')}</span>}
      </p>
      <p className={classes.who}>
        <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
          {moment(at)}
        </time>
        , {by ?? t('asTimeWentBy')}
      </p>
      {notes.map((each, order) => (
        <p key={order} className={classes.note}>
          <b>{each.by}</b>: {each.text}
        </p>
      ))}
      <FindingActs isSeen={isSeen} onSee={onSee} onNote={onNote} />
    </li>
  );
}

/** Marks a finding as seen, or adds a note to it. */
function FindingActs({ isSeen, onSee, onNote }: Pick<Props, 'onSee' | 'onNote'> & { readonly isSeen: boolean }) {
  const t = useTranslations('findings');
  const [note, setNote] = useState<string | null>(null);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (note?.trim()) onNote(note.trim());
    setNote(null);
  };
  return note === null ? (
    <p className={classes.acts}>
      {!isSeen && (
        <Button size="compact-xs" variant="default" onClick={onSee}>
          {t('seen')}
        </Button>
      )}
      <Button size="compact-xs" variant="subtle" color="ink" onClick={() => setNote('')}>
        {t('addANote')}
      </Button>
    </p>
  ) : (
    <form className={classes.acts} onSubmit={keep}>
      <TextInput
        size="xs"
        aria-label={t('note')}
        maxLength={500}
        value={note}
        onChange={(event) => setNote(event.currentTarget.value)}
        autoFocus
      />
      <Button size="compact-xs" type="submit">
        {t('save')}
      </Button>
    </form>
  );
}
