import { TextInput } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './NoteInput.module.css';

/** The note of the rule on the bench, for readers of the legend. */
export function NoteInput() {
  const t = useTranslations('bench');
  const session = useSession();
  const note = useSessionState((state) => state.bench?.draft.rule.note) ?? '';
  const change = (value: string) => {
    const { bench } = session.get();
    if (!bench) return;
    const { note: _, ...rest } = bench.draft.rule;
    session.rules.changeDraft(value === '' ? rest : { ...rest, note: value });
  };
  return (
    <TextInput
      className={classes.noteInput}
      size="xs"
      aria-label={t('noteForReaders')}
      placeholder={t('noteWhyMattersWhat')}
      maxLength={500}
      value={note}
      onChange={({ currentTarget: { value } }) => change(value)}
    />
  );
}
