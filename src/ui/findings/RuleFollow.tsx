import { Switch } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { FollowedRule } from '../../protocol/findings';
import { CountLine } from './CountLine';
import classes from './RuleFollow.module.css';

interface Props {
  readonly rule: FollowedRule;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onChange: (body: { readonly isMuted?: boolean; readonly isImportant?: boolean }) => void;
}

/** A rule that gives findings: its count over time, and whether it is followed. */
export function RuleFollow({ rule, isChosen, onChoose, onChange }: Props) {
  const t = useTranslations('findings');
  const { name, unseen, isMuted, isImportant, counts } = rule;
  return (
    <li className={classes.rule} data-chosen={isChosen || undefined}>
      <button type="button" className={classes.ruleName} aria-pressed={isChosen} onClick={onChoose}>
        <span>{name}</span>
        <span className={classes.unseen}>{isMuted ? t('muted') : unseen > 0 ? t('unseenNew', { unseen }) : ''}</span>
      </button>
      <CountLine counts={counts} name={name} />
      <div className={classes.switches}>
        <Switch
          size="xs"
          color="ink"
          label={t('muteForMe')}
          checked={isMuted}
          onChange={(event) => onChange({ isMuted: event.currentTarget.checked })}
        />
        <Switch
          size="xs"
          color="ink"
          label={t('importantMailAtOnce')}
          checked={isImportant}
          onChange={(event) => onChange({ isImportant: event.currentTarget.checked })}
        />
      </div>
    </li>
  );
}
