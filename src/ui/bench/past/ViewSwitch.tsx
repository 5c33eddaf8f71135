import { useTranslations } from 'use-intl';
import classes from './Past.module.css';

/** What stands beside the sentence of a rule: the values it tests, or what it would have found. */
export type BenchView = 'values' | 'past';

interface Props {
  readonly view: BenchView;
  readonly onView: (view: BenchView) => void;
}

export function ViewSwitch({ view, onView }: Props) {
  const t = useTranslations('past');
  return (
    <div className={classes.switch} role="group" aria-label={t('valuesOrPast')}>
      {(['values', 'past'] as const).map((each) => (
        <button
          key={each}
          type="button"
          className={classes.choice}
          aria-pressed={each === view}
          onClick={() => onView(each)}
        >
          {t(each)}
        </button>
      ))}
    </div>
  );
}
