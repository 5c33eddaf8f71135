import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './RuleSetNotice.module.css';
import { bringIn, useRuleSets } from './rule-sets-here';

/** How often it is looked whether rule sets have moved on. */
const LOOK_MS = 60_000;

/** Says where a rule set that is used here has moved on, and brings its rules up to date. */
export function RuleSetNotice() {
  const t = useTranslations('legend');
  const session = useSession();
  const used = useSessionState((state) => state.frame?.ruleSets);
  const { sets, read } = useRuleSets(session);
  const count = used?.length ?? 0;
  useEffect(() => {
    if (count === 0) return;
    void read();
    const timer = setInterval(() => void read(), LOOK_MS);
    return () => clearInterval(timer);
  }, [count, read]);
  const behind = used?.filter(({ set, version }) => (sets?.find(({ id }) => id === set)?.version ?? 0) > version) ?? [];
  return behind.map(({ set, name }) => (
    <div key={set} className={classes.moved} role="status">
      <span>{t('ruleSetNameHas', { name })}</span>
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => void bringIn(session, set).then((wrong) => wrong && session.showMessage(wrong))}
      >
        {t('updateItsRules')}
      </Button>
    </div>
  ));
}
