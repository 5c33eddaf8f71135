import { Button, CloseButton } from '@mantine/core';
import { IconCheck } from '@tabler/icons-react';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './FirstSteps.module.css';

/** The first steps in an empty sheet: a table, a rule, and other people. It stays until all is done, or it is closed. */
export function FirstSteps() {
  const session = useSession();
  const isEmpty = useSessionState((state) => state.frame?.isEmpty);
  const hasRules = useSessionState((state) => state.legend.length > 0);
  const isWorking = useSessionState((state) => state.bench !== null || state.panel !== null);
  const [wasEmpty, setWasEmpty] = useState(false);
  const [isClosed, setClosed] = useState(false);
  const [isShared, setShared] = useState(false);
  if (isEmpty === true && !hasRules && !wasEmpty) setWasEmpty(true);
  if (!wasEmpty || isClosed || isWorking || (!isEmpty && hasRules && isShared)) return null;
  return (
    <section className={classes.steps} aria-label="First steps">
      <CloseButton
        className={classes.close}
        size="sm"
        aria-label="Close the first steps"
        onClick={() => setClosed(true)}
      />
      <ol className={classes.list}>
        <Step title="Paste or type a table" isDone={isEmpty === false}>
          Copy rows anywhere and press Ctrl+V here. The first row names the fields. A file is imported from{' '}
          <Link href="/">your sheets</Link>.
        </Step>
        <Step title="Say what matters" isDone={hasRules}>
          Such as “oxygen below 5 as alarm”.{' '}
          {isEmpty === false && (
            <Button size="compact-xs" variant="default" onClick={() => session.openPanel('new-rule')}>
              New rule
            </Button>
          )}
        </Step>
        <Step title="Share it" isDone={isShared}>
          By link, to read or to fill in.{' '}
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => {
              setShared(true);
              session.openPanel('share');
            }}
          >
            Share
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

const Step = ({ title, isDone, children }: StepProps) => (
  <li className={classes.step} data-done={isDone}>
    <span className={classes.title}>
      {title}
      {isDone && <IconCheck size={15} stroke={2} aria-label="done" />}
    </span>
    <span className={classes.says}>{children}</span>
  </li>
);
