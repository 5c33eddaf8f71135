import { TextInput } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './NoteInput.module.css';

/** The note of the rule on the bench, for readers of the legend. */
export function NoteInput() {
  const t = useTranslations('bench');
  const session = useSession();
  const rule = useSessionState((state) => state.bench?.draft.rule);
  if (!rule) return null;
  const { note: _, ...rest } = rule;
  return (
    <TextInput
      className={classes.noteInput}
      size="xs"
      aria-label={t('noteForReaders')}
      placeholder={t('noteWhyMattersWhat')}
      maxLength={500}
      value={rule.note ?? ''}
      onChange={({ currentTarget: { value } }) =>
        session.rules.changeDraft(value === '' ? rest : { ...rule, note: value })
      }
    />
  );
}
