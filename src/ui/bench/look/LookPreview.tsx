import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { contrastRatio } from '../../../core/looks/contrast';
import { lookProperties, type Look, lookValue } from '../../../core/looks/look';
import { groundOf } from '../../../core/looks/readable-text';
import { seenAs, type Vision } from '../../../core/looks/vision';
import { formatNumber } from '../../../core/values/number-format';
import { Swatch } from '../../legend/Swatch';
import { useLooks } from '../../legend/use-looks';
import { useSessionState } from '../../sheet/use-session';
import { TOKENS } from '../../theme/tokens';
import classes from './LookPreview.module.css';

/** The least contrast at which text is easy to read (WCAG 2.x, level AA). */
const READABLE = 4.5;
const VISION_WORDS = {
  protan: 'protan',
  deutan: 'deutan',
  tritan: 'tritan',
  grey: 'greyPrint',
} as const satisfies Record<Vision, string>;

/** A look on a value of the reader's own, how well its text can be read, and how others see its colours. */
export function LookPreview({ look }: { readonly look: Look }) {
  const t = useTranslations('bench');
  const theme = useSessionState((state) => state.theme);
  const answer = useSessionState((state) => state.profile);
  const format = useSessionState((state) => {
    const reads = state.bench?.draft.rule.reads;
    return reads && 'fields' in reads
      ? (state.frame?.fields.find(({ id }) => id === reads.fields[0])?.format ?? null)
      : null;
  });
  const isNumeric = answer !== null && answer.profile.numbers > answer.profile.others;
  const words = isNumeric ? formatNumber(answer.profile.median, format) : (answer?.texts[0]?.text ?? t('sample'));
  const properties = lookProperties(look, useLooks().saved);
  const fill = lookValue(properties, 'fill');
  const ground = fill === undefined ? TOKENS[theme].sheet : groundOf(fill);
  const text = lookValue(properties, 'text') ?? TOKENS[theme].ink;
  const contrast = contrastRatio(text, ground);
  return (
    <div className={classes.preview}>
      <Swatch look={look} text={words} />
      <span>
        {t('contrastToFixed', { toFixed: contrast.toFixed(1) })}{' '}
        {contrast < READABLE && <b>{t('hardReadUnderREADABLE', { READABLE })}</b>}
      </span>
      <span className={classes.visions}>
        {keysOf(VISION_WORDS).map((vision) => (
          <span key={vision}>
            <span style={{ background: seenAs(ground, vision), color: seenAs(text, vision) }}>{t('aa')}</span>{' '}
            {t(VISION_WORDS[vision])}
          </span>
        ))}
      </span>
    </div>
  );
}
