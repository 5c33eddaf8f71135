import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { memo, useEffect, useState, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { takesTrials } from '../../core/rules/evaluate/judge-trial';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Decimal } from '../../core/values/decimal-comma';
import { useDecimal } from '../sheet/use-decimal';
import { readThreshold } from '../../core/rules/shape/read-threshold';
import type { Rule } from '../../core/rules/shape/rule';
import type { Trial } from '../../core/rules/terms';
import type { Session } from '../sheet/session';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from './Bench.module.css';
import classes from './Trials.module.css';

/** How long a rule must rest before it is tried. */
const REST_MS = 80;

/**
 * Examples of the rule, kept with it: the outcome of each value, and whether it is still the outcome of when the
 * example was kept.
 */
export const Trials = memo(function Trials({ rule }: { readonly rule: Rule }) {
  const t = useTranslations('bench');
  const session = useSession();
  const format = useSessionState((state) => {
    const { reads } = rule;
    return 'fields' in reads ? (state.frame?.fields.find(({ id }) => id === reads.fields[0])?.format ?? null) : null;
  });
  const decimal = useDecimal();
  const [typed, setTyped] = useState('');
  const trials = rule.trials ?? [];
  const isJudged = takesTrials(rule);
  const outcomes = useOutcomes(rule, readTrial(typed, { format, decimal }));
  const says = useSays(kindOf(rule.when).outcomes === 'match');

  if (!isJudged) return null;
  const keep = async (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || event.ctrlKey || typed.trim() === '') return;
    event.preventDefault();
    const value = readTrial(typed, { format, decimal });
    // The outcome on screen may still be that of an earlier input.
    setTyped('');
    const [expect = null] = await session.ask({ kind: 'ask-trials', rule, values: [value] });
    changeTrials(session, rule, (now) => [...now, { value, expect }]);
  };
  return (
    <div className={classes.trials} role="group" aria-label={t('trials')}>
      {trials.map((trial, at) => (
        <TrialItem
          key={at}
          trial={trial}
          outcome={outcomes[at]}
          says={says}
          onRemove={() => changeTrials(session, rule, (now) => now.toSpliced(at, 1))}
        />
      ))}
      <label>
        {t('try')}{' '}
        <input
          className={shared.threshold}
          aria-label={t('aValueToTry')}
          placeholder={t('value')}
          size={8}
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
          onKeyDown={(event) => void keep(event)}
        />
      </label>
      {typed.trim() !== '' && (
        <span role="status">{t('saysPressEnterKeep', { says: says(outcomes[trials.length]) })}</span>
      )}
    </div>
  );
});

/** Changes the trials of a rule as it is by now: other parts of it may have been changed since it was shown. */
function changeTrials(session: Session, { id }: Rule, next: (now: readonly Trial[]) => readonly Trial[]): void {
  const draft = session.get().bench?.draft.rule;
  if (draft?.id !== id) return;
  const { trials: now = [], ...rest } = draft;
  const changed = next(now);
  session.rules.changeDraft(changed.length ? { ...rest, trials: changed } : rest);
}

/** The outcomes of a rule's trials and of one more value, once the rule rests. */
function useOutcomes(rule: Rule, value: Trial['value']): readonly (Trial['expect'] | undefined)[] {
  const session = useSession();
  const [outcomes, setOutcomes] = useState<readonly Trial['expect'][]>([]);
  const isJudged = takesTrials(rule);
  useEffect(() => {
    if (!isJudged) return;
    let isStale = false;
    const values = [...(rule.trials ?? []).map((trial) => trial.value), value];
    const waiting = setTimeout(
      () => void session.ask({ kind: 'ask-trials', rule, values }).then((found) => !isStale && setOutcomes(found)),
      REST_MS,
    );
    return () => {
      isStale = true;
      clearTimeout(waiting);
    };
  }, [session, rule, value, isJudged]);
  return outcomes;
}

interface TrialItemProps {
  readonly trial: Trial;
  readonly outcome: Trial['expect'] | undefined;
  readonly says: (outcome: Trial['expect'] | undefined) => string;
  readonly onRemove: () => void;
}

function TrialItem({ trial, outcome, says, onRemove }: TrialItemProps) {
  const t = useTranslations('bench');
  const passes = outcome === trial.expect;
  return (
    <span data-passes={passes}>
      <b>{String(trial.value)}</b> {says(trial.expect)}:{' '}
      {passes ? t('passes') : t('failsItOutcome', { outcome: says(outcome) })}
      <ActionIcon
        variant="subtle"
        color="ink"
        size="xs"
        aria-label={t('removeTheTrialValue', { value: String(trial.value) })}
        onClick={onRemove}
      >
        <IconX size={11} stroke={1.5} />
      </ActionIcon>
    </span>
  );
}

const readTrial = (typed: string, as: { readonly format: string | null; readonly decimal: Decimal }): Trial['value'] =>
  readThreshold(typed, { ...as, takes: 'any' }) ?? null;

/** What becomes of a value: whether a rule with one look paints it, or which of its outcomes it has. */
function useSays(isMatch: boolean): (outcome: Trial['expect'] | undefined) => string {
  const t = useTranslations('bench');
  if (isMatch) return (outcome) => (outcome === true ? t('isPainted') : t('isNotPainted'));
  return (outcome) =>
    outcome === null || outcome === undefined ? t('hasNoOutcome') : t('givesOutcome', { outcome: String(outcome) });
}
