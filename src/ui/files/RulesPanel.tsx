import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { messageOf } from '../../core/values/error-message';
import { useSession } from '../sheet/use-session';
import { ChooseFile } from './ChooseFile';
import classes from './Files.module.css';

/** Brings the rules of a rule file in, after those that are there. */
export function RulesPanel() {
  const t = useTranslations('files');
  const session = useSession();
  const [told, setTold] = useState<{ readonly names: readonly string[]; readonly unknown: readonly string[] } | null>(
    null,
  );
  const [error, setError] = useState<string | null>(null);

  const bring = async (file: File | null) => {
    if (!file) return;
    setError(null);
    setTold(null);
    try {
      setTold(await session.ask({ kind: 'bring-rules', text: await file.text() }));
    } catch (failed) {
      setError(messageOf(failed));
    }
  };

  return (
    <div className={classes.panel}>
      <p className={classes.note}>{t('chooseRuleFileSuch')}</p>
      <ChooseFile label={t('ruleFile')} accept=".json,application/json" take={(file) => void bring(file)} />
      {error && <p role="alert">{error}</p>}
      {told && (
        <section className={classes.report} aria-label={t('importedRules')}>
          <h3>{t('importedNames', { names: told.names.join(', ') })}</h3>
          {told.unknown.length > 0 && <p>{t('sheetHasNoField', { unknown: told.unknown.join(', ') })}</p>}
        </section>
      )}
    </div>
  );
}
