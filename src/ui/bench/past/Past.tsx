import { memo, useState } from 'react';
import { useFormatter, useTranslations } from 'use-intl';
import { isSameRule } from '../../../core/rules/shape/is-same-rule';
import type { Rule } from '../../../core/rules/shape/rule';
import type { NamedField } from '../../../core/rules/shape/sentence-words';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import { itemAt } from '../../../core/values/item-at';
import type { PastAsked, PastCellTold, RulePast } from '../../../protocol/rule-past';
import { saveFile } from '../../files/save-file';
import { useLooks } from '../../legend/use-looks';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';
import { useSession, useSessionState } from '../../sheet/use-session';
import shared from '../Bench.module.css';
import { outcomeColors } from '../picture/outcome-colors';
import { ByDate } from './ByDate';
import classes from './Past.module.css';
import { pastTable } from './past-table';
import { PastChart } from './PastChart';
import { timeWords } from './time-words';
import { useRulePast } from './use-rule-past';

/** Periods in days; null is all that is known. */
const PERIODS = [null, 90, 30, 7, 1] as const;

interface Props {
  readonly rule: Rule;
  /** The rule as it is saved; null where it is new. */
  readonly kept: Rule | null;
}

/** What a rule would have found over the sheet's history, beside what it found as it is saved; or by a field of dates. */
export const Past = memo(function Past({ rule, kept }: Props) {
  const t = useTranslations('past');
  const [chosen, setChosen] = useState('');
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const dated = useEngineQuery({ kind: 'ask-date-fields' }) ?? [];
  const choices: readonly Choice[] = [
    ...PERIODS.map((days) => ({
      key: `days ${days}`,
      says: days === null ? t('allThatIsKnown') : t('lastDays', { days }),
      over: { days },
    })),
    ...fields
      .filter(({ id }) => dated.includes(id))
      .map((field) => ({ key: `by ${field.id}`, says: t('byDateOf', { field: field.label }), over: { field } })),
  ];
  const { key, over } = choices.find((choice) => choice.key === chosen) ?? itemAt(choices, 0);
  return (
    <div className={classes.past} data-help="past">
      <label className={classes.period}>
        {t('period')}{' '}
        <select value={key} onChange={(event) => setChosen(event.currentTarget.value)}>
          {choices.map((choice) => (
            <option key={choice.key} value={choice.key}>
              {choice.says}
            </option>
          ))}
        </select>
      </label>
      {'field' in over ? <ByDate rule={rule} field={over.field} /> : <ByLog rule={rule} kept={kept} days={over.days} />}
    </div>
  );
});

/** What the past is shown over: days of the log up to now, all of it (null), or a field of dates. */
interface Choice {
  readonly key: string;
  readonly says: string;
  readonly over: { readonly days: number | null } | { readonly field: NamedField };
}

/** What it would have found over the log. */
function ByLog({ rule, kept, days }: Props & { readonly days: number | null }) {
  const t = useTranslations('past');
  const asked: PastAsked = { days };
  const told = useRulePast(rule, asked);
  const saved = useRulePast(kept && !isSameRule(kept, rule) ? kept : null, asked);
  if (told?.gap === null) return <Found told={told} saved={saved} rule={rule} asked={asked} />;
  return (
    <p className={shared.note} role="status">
      {told ? <Gap told={told} /> : t('readingThePast')}
    </p>
  );
}

type KnownPast = Extract<RulePast, { readonly gap: null }>;

/** Why there is nothing to show. */
function Gap({ told }: { readonly told: Exclude<RulePast, KnownPast> }) {
  const t = useTranslations('past');
  switch (told.gap) {
    case 'reading':
      return t('readingThePast');
    case 'shades-all':
      return t('shadesAll');
    case 'needs-past':
      return t('needsPast');
    case 'nothing-known':
      return t('nothingKnown');
    case 'cannot-work':
      return t('cannotWork', { message: told.message });
  }
}

interface FoundProps {
  readonly told: KnownPast;
  readonly saved: RulePast | null;
  readonly rule: Rule;
  readonly asked: PastAsked;
}

function Found({ told: { summary, most, painted }, saved, rule, asked }: FoundProps) {
  const t = useTranslations('past');
  const { dateTime } = useFormatter();
  const session = useSession();
  const theme = useSessionState((state) => state.theme);
  const { saved: looks } = useLooks();
  const [color = null] = outcomeColors(rule, { saved: looks, theme });
  const before = saved?.gap === null ? saved.summary : null;
  const { entered, cells, flapped, medianDays, from } = summary;
  const day = dateTime(new Date(isoFromSerial(Math.floor(from))), { day: 'numeric', month: 'short', timeZone: 'UTC' });
  const download = async () => {
    const rows = await session.ask({ kind: 'ask-past-rows', rule, past: asked });
    const table = pastTable(rows, t);
    saveFile(new Blob([table], { type: 'text/csv' }), t('tableName', { name: rule.name }));
  };
  return (
    <>
      <PastChart summary={summary} saved={before} color={color} />
      <ul className={classes.facts} aria-live="polite">
        <li>
          <b>{t('wouldHaveFound', { entered, from: day, cells })}</b>{' '}
          {summary.before > 0 && t('thereBefore', { before: summary.before })}
        </li>
        {(!Number.isNaN(medianDays) || flapped > 0) && (
          <li>
            {!Number.isNaN(medianDays) && t('stayed', { time: timeWords(medianDays, t) })}{' '}
            {flapped > 0 && t('cameBack', { flapped })}
          </li>
        )}
        {painted !== null && <li>{t('withoutWaiting', { painted })}</li>}
        {before && <li>{t('comparedWithSaved', { entered: before.entered, cells: before.cells })}</li>}
      </ul>
      {most.length > 0 && <Most cells={most} />}
      <button type="button" className={shared.show} onClick={() => void download()}>
        {t('downloadTable')}
      </button>
    </>
  );
}

/** The cells that were found most often. */
function Most({ cells }: { readonly cells: readonly PastCellTold[] }) {
  const t = useTranslations('past');
  const session = useSession();
  return (
    <section aria-label={t('foundMost')}>
      <h3 className={classes.title}>{t('foundMost')}</h3>
      <ul className={classes.facts}>
        {cells.map(({ cell, record, label, isThere, times, days, isNow }) => (
          <li key={`${cell.row} ${cell.field}`}>
            {isThere ? (
              <button type="button" className={shared.show} onClick={() => void session.goTo(cell)}>
                {t('recordOfField', { record, label })}
              </button>
            ) : (
              t('recordOfField', { record, label })
            )}{' '}
            {t('timesAndTime', { times, time: timeWords(days, t) })}
            {isNow && `, ${t('still')}`}
          </li>
        ))}
      </ul>
    </section>
  );
}
