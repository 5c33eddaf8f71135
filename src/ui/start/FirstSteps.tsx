import { Button, CloseButton } from '@mantine/core';
import { IconCheck } from '@tabler/icons-react';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './FirstSteps.module.css';

/** The first steps in an empty sheet: a table, a rule, and other people. It stays until all is done, or it is closed. */
export function FirstSteps() {
  const t = useTranslations('start');
  const session = useSession();
  const isEmpty = useSessionState((state) => state.frame?.isEmpty);
  const hasRules = useSessionState((state) => state.legend.length > 0);
  const isWorking = useSessionState((state) => state.bench !== null || state.panel !== null);
  const [wasEmpty, setWasEmpty] = useState(false);
  const [isClosed, setClosed] = useState(false);
  const isSharing = useSessionState((state) => state.panel === 'share');
  const [isShared, setShared] = useState(false);
  if (isSharing && !isShared) setShared(true);
  if (isEmpty === true && !hasRules && !wasEmpty) setWasEmpty(true);
  if (!wasEmpty || isClosed || isWorking || (!isEmpty && hasRules && isShared)) return null;
  return (
    <section className={classes.steps} aria-label={t('firstSteps')}>
      <CloseButton
        className={classes.close}
        size="sm"
        aria-label={t('closeTheFirstSteps')}
        onClick={() => setClosed(true)}
      />
      <ol className={classes.list}>
        <Step title={t('pasteTypeTable')} isDone={isEmpty === false}>
          {t('copyRowsAnywherePress')} <Link href="/">{t('yourSheets')}</Link>.
        </Step>
        <Step title={t('sayWhatMatters')} isDone={hasRules}>
          {t('suchAsOxygenBelow')}{' '}
          {isEmpty === false && (
            <Button size="compact-xs" variant="default" onClick={() => session.openPanel('new-rule')}>
              {t('newRule')}
            </Button>
          )}
        </Step>
        <Step title={t('share')} isDone={isShared}>
          {t('linkReadFill')}{' '}
          <Button size="compact-xs" variant="default" onClick={() => session.openPanel('share')}>
            {t('share2')}
          </Button>
        </Step>
      </ol>
    </section>
  );
}

interface StepProps {
  readonly title: string;
  readonly isDone: boolean;
  readonly children: ReactNode;
}

const Step = ({ title, isDone, children }: StepProps) => {
  const t = useTranslations('start');
  return (
    <li className={classes.step} data-done={isDone}>
      <span className={classes.title}>
        {title}
        {isDone && <IconCheck size={15} stroke={2} aria-label={t('done')} />}
      </span>
      <span className={classes.says}>{children}</span>
    </li>
  );
};
