'use client';

import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { chosenOf } from '../sheet/example-actions';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from '../bench/Bench.module.css';
import classes from './ByExample.module.css';
import { ExampleGroups } from './ExampleGroups';
import { ProposalList } from './ProposalList';
import { Question } from './Question';

/** A rule that is made by pointing at cells, where the bench would be: the examples, the rules that fit, a question. */
export function ByExamplePanel() {
  const t = useTranslations('byExample');
  const session = useSession();
  const byExample = useSessionState((state) => state.byExample);
  if (!byExample) return null;
  const isReady = chosenOf(byExample) !== undefined;
  return (
    <section className={shared.bench} aria-label={t('ruleFromExamples')} data-help="examples">
      <div className={shared.head}>
        <h2 className={classes.title}>{t('ruleFromExamples')}</h2>
        <span className={shared.spacer} />
        <Button size="compact-md" fz={13} disabled={!isReady} onClick={() => session.examples.save()}>
          {byExample.filled ? t('replaceFills') : t('saveRule')}
        </Button>
        <Button
          size="compact-md"
          fz={13}
          variant="default"
          disabled={!isReady}
          onClick={() => session.examples.openOnBench()}
        >
          {t('editOnBench')}
        </Button>
        <Button size="compact-md" fz={13} variant="default" onClick={() => session.examples.leave()}>
          {t('cancel')}
        </Button>
      </div>
      <div className={classes.body}>
        <ExampleGroups byExample={byExample} />
        <ProposalList byExample={byExample} />
        <Question byExample={byExample} />
      </div>
    </section>
  );
}
