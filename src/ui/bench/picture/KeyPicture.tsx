import { SegmentedControl } from '@mantine/core';
import { cumsum, descending, sum } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { itemAt } from '../../../core/values/item-at';
import { KEY_OUTCOMES } from '../../../core/rules/kinds/key';
import type { Tally } from '../../../core/rules/explain/outcome-tallies';
import type { Rule } from '../../../core/rules/shape/rule';
import { useLooks } from '../../legend/use-looks';
import { useSessionState } from '../../sheet/use-session';
import shared from '../Bench.module.css';
import classes from './KeyPicture.module.css';
import { OUTCOME_WORDS } from '../key-words';
import { outcomeColors, type OutcomeColors } from './outcome-colors';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';

const MAX_BARS = 8;
const [RIGHT, NEAR, WRONG] = [
  KEY_OUTCOMES.indexOf('right'),
  KEY_OUTCOMES.indexOf('near'),
  KEY_OUTCOMES.indexOf('wrong'),
] as const;

/**
 * How many answers are right, nearly right, wrong and missing, by field (a person or group that answers) and by record
 * (a question).
 */
export function KeyPicture({ rule }: { readonly rule: Rule }) {
  const t = useTranslations('bench');
  const theme = useSessionState((state) => state.theme);
  const { saved } = useLooks();
  const tallies = useEngineQuery({ kind: 'ask-tallies', rule: rule.id });
  const [by, setBy] = useState<'fields' | 'records'>('fields');
  if (!tallies) return <div className={shared.chart} />;
  const looks = outcomeColors(rule, { saved, theme });
  // Who or what needs help comes first among records; fields stay as they stand on the sheet.
  const shown = by === 'fields' ? tallies.fields : tallies.records.toSorted((a, b) => descending(need(a), need(b)));
  return (
    <div>
      <SegmentedControl<'fields' | 'records'>
        size="xs"
        aria-label={t('answersBy')}
        value={by}
        onChange={setBy}
        data={[
          { value: 'fields', label: t('byField') },
          { value: 'records', label: t('byRecord') },
        ]}
      />
      <ul className={shared.words} aria-label={by === 'fields' ? t('answersByField') : t('answersRecordThoseMost')}>
        {shown.slice(0, MAX_BARS).map((tally, at) => (
          <KeyBar key={`${at} ${tally.label}`} tally={tally} looks={looks} />
        ))}
        {shown.length > MAX_BARS && (
          <li className={shared.more}>{t('andShownOthers', { shown: shown.length - MAX_BARS })}</li>
        )}
      </ul>
    </div>
  );
}

const need = ({ outcomes }: Tally): number => 2 * (outcomes[WRONG] ?? 0) + (outcomes[NEAR] ?? 0);

function KeyBar({ tally, looks }: { readonly tally: Tally; readonly looks: readonly (OutcomeColors | null)[] }) {
  const t = useTranslations('bench');
  const counts = KEY_OUTCOMES.map((_, outcome) => tally.outcomes[outcome] ?? 0);
  // Right answers stand at the left, missing ones at the right.
  const order = [RIGHT, NEAR, WRONG, KEY_OUTCOMES.indexOf('empty')];
  const ends = cumsum(order, (outcome) => itemAt(counts, outcome));
  const share = scaleLinear([0, Math.max(1, sum(counts))], [0, 100]);
  const says = order
    .map((outcome) => `${t(OUTCOME_WORDS[itemAt(KEY_OUTCOMES, outcome)]).toLowerCase()} ${itemAt(counts, outcome)}`)
    .join(', ');
  return (
    <li aria-label={`${tally.label}: ${says}`} title={says}>
      <span className={shared.word}>{tally.label}</span>
      <svg className={classes.keyBar} aria-hidden>
        {order.map((outcome, at) => (
          <rect
            key={outcome}
            className={looks[outcome] ? undefined : classes.unanswered}
            x={`${share(itemAt(ends, at) - itemAt(counts, outcome))}%`}
            width={`${share(itemAt(counts, outcome))}%`}
            height="100%"
            fill={looks[outcome]?.fill}
            stroke={looks[outcome]?.line}
            strokeWidth={counts[outcome] ? 1 : 0}
          />
        ))}
      </svg>
      <span>{t('rightOfAll', { right: counts[RIGHT] ?? 0, all: sum(counts) })}</span>
    </li>
  );
}
