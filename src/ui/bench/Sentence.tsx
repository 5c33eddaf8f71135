import { memo } from 'react';
import { useTranslations } from 'use-intl';
import { eachText } from '../../texts/texts';
import { kindOf, type When } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import type { Paints, Reads } from '../../core/rules/terms';
import { ReadsPart } from './ReadsPart';
import { useSession, useSessionState } from '../sheet/use-session';
import { useNewest } from '../use-newest';
import classes from './Sentence.module.css';
import { benchOf } from './kinds/registry';
import { PaintsPart } from './PaintsPart';
import { isWatched, QuietPart } from './QuietPart';
import { PickWord } from './parts/PickWord';
import { PickLook } from './look/PickLook';

const LATER = { add: 'laterRulesStillApply', settle: 'laterRulesStopHere' } as const;

/** A rule as one sentence whose underlined words can be changed. */
export const Sentence = memo(function Sentence({
  rule,
  showsOutcomes,
}: {
  readonly rule: Rule;
  readonly showsOutcomes: boolean;
}) {
  const t = useTranslations('bench');
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const { reads, paints, when } = rule;
  const { Condition, Outcomes } = benchOf(when);
  const field = 'fields' in reads ? fields.find((candidate) => candidate.id === reads.fields[0]) : undefined;
  const change = (part: Partial<Rule>) => session.rules.changeDraft({ ...rule, ...part });
  const pickReads = useNewest((next: Reads) => change({ reads: next }));
  const pickPaints = useNewest((next: Paints) => change({ paints: next }));
  const condition = { when, field, fields, onChange: (next: When) => change({ when: next }) };
  return (
    <div>
      <div className={classes.sentence}>
        {t('where')} <ReadsPart reads={reads} onPick={pickReads} /> <Condition {...condition} />
        {t('paint')} <PaintsPart reads={reads} paints={paints} onPick={pickPaints} />{' '}
        {kindOf(when).outcomes === 'match' ? (
          <>
            {t('as')}{' '}
            <PickLook label={t('look')} value={rule.look ?? null} onPick={(look) => look && change({ look })} />
          </>
        ) : (
          t('withTheLooksBelow')
        )}
        {t('and2')}{' '}
        <PickWord
          label={t('laterRules')}
          value={rule.settles ? 'settle' : 'add'}
          words={eachText(LATER, (key) => t(key))}
          onPick={(choice) => change({ settles: choice === 'settle' })}
        />
        {isWatched(rule) && <QuietPart rule={rule} field={field} onChange={change} />}.
      </div>
      {showsOutcomes && Outcomes && <Outcomes {...condition} />}
    </div>
  );
});
