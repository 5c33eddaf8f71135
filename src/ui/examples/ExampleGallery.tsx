import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EXAMPLES, type ExampleName } from '../../core/rules/suggest/examples';
import { keysOf } from '../../core/values/typed-keys';
import { sendJson } from '../../engine/link/send-json';
import { sheetPageUrl } from '../../protocol/sheet-url';
import classes from './ExampleGallery.module.css';
import { ExampleTable } from './ExampleTable';

/** The job, and the name of a sheet that begins with it. */
const WORDS = {
  limit: { title: 'flagWhatBelowLimit', name: 'readings' },
  answers: { title: 'checkAnswersAgainstKey', name: 'quiz' },
  'two-fields': { title: 'comparePlanActual', name: 'planActual' },
  bands: { title: 'lowMiddleHigh', name: 'turbidity' },
  due: { title: 'overdueDueSoon', name: 'dueDates' },
  repeats: { title: 'findDuplicates', name: 'volunteers' },
  top: { title: 'highestLowest', name: 'hours' },
  shades: { title: 'shadeNumbersFromLow', name: 'temperatures' },
} as const satisfies Record<ExampleName, object>;

/** Common jobs, each shown as it is painted, to begin a sheet with. */
export default function ExampleGallery() {
  const t = useTranslations('examples');
  const router = useRouter();
  const [busy, setBusy] = useState<ExampleName | null>(null);
  const [error, setError] = useState<string | null>(null);
  const make = async (example: ExampleName) => {
    setBusy(example);
    const sent = await sendJson<{ id: string }>('/api/sheets', { body: { name: t(WORDS[example].name), example } });
    if ('answer' in sent) return router.push(sheetPageUrl(sent.answer.id));
    setError(sent.refused);
    setBusy(null);
  };
  return (
    <section aria-label={t('examples')}>
      <p className={classes.lead}>{t('chooseExampleBecomesSheet')}</p>
      {error && <p role="alert">{error}</p>}
      <ul className={classes.gallery}>
        {keysOf(EXAMPLES).map((example) => (
          <li key={example}>
            <button
              type="button"
              className={classes.card}
              disabled={busy !== null}
              aria-busy={busy === example}
              onClick={() => void make(example)}
            >
              <span className={classes.title}>{t(WORDS[example].title)}</span>
              <ExampleTable example={EXAMPLES[example]} label={t(WORDS[example].name)} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
