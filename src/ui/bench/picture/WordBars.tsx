import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { useTranslations } from 'use-intl';
import { inDigits } from '../../../core/values/counted';
import { useSession, useSessionState } from '../../sheet/use-session';
import type { RuleProfile } from '../../../core/rules/explain/profile-rule';
import type { Rule } from '../../../core/rules/shape/rule';
import { useLooks } from '../../legend/use-looks';
import shared from '../Bench.module.css';
import classes from './WordBars.module.css';
import { colorOfOutcome, outcomeColors } from './outcome-colors';

const MAX_BARS = 7;

/**
 * The texts that a rule tests, the most frequent first, each with a bar of its frequency in the colour of its outcome.
 */
export function WordBars({ rule, answer }: { readonly rule: Rule; readonly answer: RuleProfile }) {
  const t = useTranslations('bench');
  const session = useSession();
  const theme = useSessionState((state) => state.theme);
  const { saved } = useLooks();
  const looks = outcomeColors(rule, { saved, theme });
  const shown = answer.texts.slice(0, MAX_BARS);
  const share = scaleLinear([0, max(shown, ({ count }) => count) ?? 1], [0, 100]);
  const rest = answer.texts.length - shown.length;
  return (
    <ul className={shared.words} aria-label={t('theMostFrequentTexts')}>
      {shown.map(({ text, count, outcome }) => {
        const look = colorOfOutcome(looks, outcome);
        return (
          <li
            key={text}
            onPointerEnter={() => session.rules.spotlightPart({ text })}
            onPointerLeave={() => session.rules.spotlightPart(null)}
          >
            <span className={shared.word} title={text}>
              {text}
            </span>
            <span className={classes.wordBar}>
              <span
                style={{
                  width: `${share(count)}%`,
                  ...(look ? { background: look.fill, outline: `1px solid ${look.line}` } : {}),
                }}
              />
            </span>
            <span>{inDigits(count)}</span>
          </li>
        );
      })}
      {rest > 0 && <li className={shared.more}>{t('andOthers')}</li>}
    </ul>
  );
}
