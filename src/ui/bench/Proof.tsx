import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { ValueProfile } from '../../core/stats/profile-values';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { thresholdText } from '../../core/values/threshold-text';
import { isoFromSerial } from '../../core/values/dates/date-serial';
import { formatNumber } from '../../core/values/number-format';
import type { LegendEntry } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from './Bench.module.css';
import classes from './Proof.module.css';

/** How many cells a rule matches, and the way to them. */
function Matched({ entry }: { readonly entry: LegendEntry }) {
  const t = useTranslations('bench');
  const session = useSession();
  return (
    <li data-testid="bench-count">
      <b>
        {entry.isCounting
          ? t('countingInDatabase')
          : t('matchedOfReadCells', { matched: entry.matched, read: entry.read })}
      </b>{' '}
      {entry.matched > 0 && (
        <button type="button" className={shared.show} onClick={() => void session.rules.showMatch()}>
          {t('showTheNextOne')}
        </button>
      )}
    </li>
  );
}

/** The evidence for a rule: the nearest values on each side of each threshold, and the cells that are not tested. */
export const Proof = memo(function Proof({ rule }: { readonly rule: Rule }) {
  const t = useTranslations('bench');
  const answer = useSessionState((state) => state.profile);
  const entry = useSessionState((state) => state.legend.find((candidate) => candidate.id === state.bench?.draft.id));
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const linked = useSessionState(({ frame }) => (frame?.linked ? frame.rowCount - frame.frozenRows : 0));
  if (!answer) return null;
  const { reads, when } = rule;
  const format = ('fields' in reads ? fields.find((field) => field.id === reads.fields[0])?.format : null) ?? null;
  const { profile, nearest } = answer;
  const isDated = answer.dates > profile.numbers / 2;
  const shown = (value: number) =>
    Number.isNaN(value) ? 'none' : isDated ? isoFromSerial(Math.floor(value)) : formatNumber(value, format);
  return (
    <ul className={classes.proof} aria-label={t('proof')}>
      {entry && !entry.problem && <Matched entry={entry} />}
      {entry?.problem && <li>{entry.problem.message}</li>}
      {linked > 0 && !answer.isOfAll && <li>{t('restIsOfRecordsHere', { records: linked })}</li>}
      {kindOf(when)
        .thresholds(when)
        .map(({ value }, at) => {
          const near = nearest[at];
          return (
            near && (
              <li key={at}>
                {t('valueCellsNearestBelow', {
                  value: thresholdText(value, format),
                  at: near.at,
                  below: shown(near.below),
                  above: shown(near.above),
                })}
              </li>
            )
          );
        })}
      <Spread profile={profile} isDated={isDated} shown={shown} />
    </ul>
  );
});

interface SpreadProps {
  readonly profile: ValueProfile;
  readonly isDated: boolean;
  readonly shown: (value: number) => string;
}

/** What the values are like: their middle, and how many there are of each sort. */
function Spread({ profile, isDated, shown }: SpreadProps) {
  const t = useTranslations('bench');
  return (
    <>
      {profile.numbers > profile.others && (
        <li>
          {t('averageShownMedianMedian', {
            shown: shown(Number(profile.mean.toPrecision(6))),
            median: shown(profile.median),
          })}
        </li>
      )}
      <li>
        {t('numbersBlanksBlanksOthers', {
          numbers: isDated
            ? t('countDates', { count: profile.numbers })
            : t('countNumbers', { count: profile.numbers }),
          blanks: profile.blanks,
          others: profile.others,
        })}
      </li>
    </>
  );
}
