import { useTranslations } from 'use-intl';
import type { FoundRule } from '../../protocol/import-messages';
import classes from './ImportScreen.module.css';

/** With more rules than these their sentences are listed on demand. */
const FEW = 6;

/** The rules that a file brings, each as its sentence. */
export function FoundRules({ rules }: { readonly rules: readonly FoundRule[] }) {
  const t = useTranslations('importing');
  return (
    <details open={rules.length <= FEW}>
      <summary>
        <h2 className={classes.heading}>{t('countRules', { count: rules.length })}</h2>
      </summary>
      <ul className={classes.facts}>
        {rules.map(({ name, sentence }, at) => (
          <li key={at}>
            {name}: {sentence}
          </li>
        ))}
      </ul>
    </details>
  );
}
