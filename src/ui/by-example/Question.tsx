import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { Swatch } from '../legend/Swatch';
import type { ByExample } from '../sheet/session-state';
import { useSession } from '../sheet/use-session';
import classes from './ByExample.module.css';

/** The cell whose answer tells the proposals apart. */
export function Question({ byExample: { told, filled, examples } }: { readonly byExample: ByExample }) {
  const t = useTranslations('byExample');
  const session = useSession();
  if (filled) return <p className={classes.question}>{t('ruleReplacesFills')}</p>;
  if (!told || told.proposals.length === 0) return <div />;
  const { ask } = told;
  if (!ask) return <p className={classes.question}>{t('nothingToAsk')}</p>;
  const about = { address: ask.address, shown: ask.shown || t('blank') };
  const isOne = examples.wanted.length === 1;
  return (
    <div className={classes.question} role="group" aria-label={t('question')}>
      <h3 className={classes.groupTitle}>{t('question')}</h3>
      <p>{isOne ? t('isMeantToo', about) : t('whichLook', about)}</p>
      <div className={classes.answers}>
        {examples.wanted.map(({ look }, at) => (
          <Button key={at} size="compact-sm" variant="default" onClick={() => session.examples.answer(at)}>
            {isOne ? t('yes') : <Swatch look={look} isSmall />}
          </Button>
        ))}
        <Button size="compact-sm" variant="default" onClick={() => session.examples.answer('none')}>
          {isOne ? t('no') : t('leaveAsTheyAre')}
        </Button>
        <button type="button" className={classes.link} onClick={() => void session.goTo(ask.cell)}>
          {t('show')}
        </button>
      </div>
      <p className={classes.facts}>{t('notLikely')}</p>
    </div>
  );
}
