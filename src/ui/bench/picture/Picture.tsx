import { useTranslations } from 'use-intl';
import type { Rule } from '../../../core/rules/shape/rule';
import { useSessionState } from '../../sheet/use-session';
import shared from '../Bench.module.css';
import classes from './Picture.module.css';
import { benchOf } from '../kinds/registry';
import { Distribution } from './Distribution';
import { WordBars } from './WordBars';

/**
 * The values that a rule tests, in the picture that fits them: numbers and dates by distribution, texts by frequency.
 */
export function Picture({ rule }: { readonly rule: Rule }) {
  const t = useTranslations('bench');
  const answer = useSessionState((state) => state.profile);
  if (!answer) return <div className={shared.chart} />;
  const { Picture: Own } = benchOf(rule.when);
  if (Own) return <Own rule={rule} />;
  const { profile, texts } = answer;
  const words = texts.reduce((sum, { count }) => sum + count, 0);
  if (profile.numbers > 0 && profile.numbers >= words)
    return <Distribution key={rule.id} rule={rule} answer={answer} />;
  if (words > 0) return <WordBars rule={rule} answer={answer} />;
  return <p className={classes.none}>{t('thereNothingHereShow')}</p>;
}
