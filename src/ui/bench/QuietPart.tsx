import { Checkbox } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { UNWATCHED_KINDS } from '../../core/findings/rule-watch';
import {
  hasOneLimit,
  QUIET_UNITS,
  quietWords,
  rearmMistake,
  type Quiet,
  type QuietTime,
} from '../../core/rules/shape/quiet';
import type { Rule } from '../../core/rules/shape/rule';
import { sentenceWords } from '../../core/rules/shape/sentence-words';
import { recordOf } from '../../core/values/typed-keys';
import type { ShownField } from '../../protocol/sheet-view';
import { useSessionState } from '../sheet/use-session';
import classes from './Bench.module.css';
import own from './QuietPart.module.css';
import { UNIT_TEXTS } from './kinds/unit-texts';
import { PickWord } from './parts/PickWord';
import { ThresholdInput } from './parts/ThresholdInput';
import { Unfold } from './parts/Unfold';

/** Whether a rule has findings: shades of every number have none. */
export const isWatched = ({ when }: Rule): boolean => !UNWATCHED_KINDS.some((kind) => kind === when.kind);

interface Props {
  readonly rule: Rule;
  /** The field that is read first. */
  readonly field: ShownField | undefined;
  readonly onChange: (part: Pick<Rule, 'quiet'>) => void;
}

/** When the findings of a rule are reported: at once, or only after some time, until another limit, and not too often. */
export function QuietPart({ rule, field, onChange }: Props) {
  const t = useTranslations('bench');
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const { when, quiet = {} } = rule;
  const words = quietWords(rule, sentenceWords(fields, rule.reads)) ?? t('atOnce');
  const change = (part: Partial<Record<keyof Quiet, Quiet[keyof Quiet] | undefined>>) => {
    const given = Object.entries({ ...quiet, ...part }).filter(([, value]) => value !== undefined);
    onChange({ quiet: given.length ? Object.fromEntries(given) : undefined });
  };
  return (
    <>
      {t('foundSemicolon')}{' '}
      <Unfold
        label={t('findings')}
        button={{ label: `${t('findings')}: ${words}`, className: classes.pick, shows: words }}
      >
        <div className={own.choices} data-help="quiet">
          <TimeChoice
            label={t('afterSomeTime')}
            before={t('afterTime')}
            after={t('withTheLook')}
            time={quiet.hold}
            usual={{ n: 30, unit: 'minute' }}
            onChange={(hold) => change({ hold })}
          />
          {hasOneLimit(when) && (
            <RearmChoice rule={rule} field={field} limit={when} onChange={(rearm) => change({ rearm })} />
          )}
          <TimeChoice
            label={t('notTooOften')}
            before={t('atMostOnceIn')}
            after={t('forEachCell')}
            time={quiet.every}
            usual={{ n: 1, unit: 'day' }}
            onChange={(every) => change({ every })}
          />
          <p className={own.says}>{t('lookNeverWaits')}</p>
        </div>
      </Unfold>
    </>
  );
}

interface RearmProps extends Pick<Props, 'rule' | 'field'> {
  readonly limit: { readonly is: string; readonly to: number };
  readonly onChange: (rearm: number | undefined) => void;
}

/** The limit that a cell must be back at. */
function RearmChoice({ rule, field, limit, onChange }: RearmProps) {
  const t = useTranslations('bench');
  const rearm = rule.quiet?.rearm;
  return (
    <div className={own.choice}>
      <Checkbox
        color="ink"
        label={t('untilBackAt')}
        checked={rearm !== undefined}
        onChange={({ currentTarget: { checked } }) => onChange(checked ? usualRearm(limit) : undefined)}
      />
      {rearm !== undefined && (
        <ThresholdInput
          label={t('untilBackAt')}
          value={rearm}
          format={field?.format ?? null}
          unit={field?.unit ?? null}
          takes="number"
          onChange={(typed) => typeof typed === 'number' && onChange(typed)}
        />
      )}
      {rearmMistake(rule) !== null && (
        <p className={own.mistake} role="alert">
          {limit.is.startsWith('<') ? t('mustBeAboveLimit') : t('mustBeBelowLimit')}
        </p>
      )}
    </div>
  );
}

/** A tenth of the limit beyond it, or one where it is 0. */
function usualRearm({ is, to }: { readonly is: string; readonly to: number }): number {
  const beyond = Math.abs(to) / 10 || 1;
  return Number((is.startsWith('<') ? to + beyond : to - beyond).toPrecision(3));
}

interface TimeChoiceProps {
  readonly label: string;
  readonly before: string;
  readonly after: string;
  readonly time: QuietTime | undefined;
  readonly usual: QuietTime;
  readonly onChange: (time: QuietTime | undefined) => void;
}

function TimeChoice({ label, before, after, time, usual, onChange }: TimeChoiceProps) {
  const t = useTranslations('bench');
  const shown = time ?? usual;
  return (
    <div className={own.choice}>
      <Checkbox
        color="ink"
        label={before}
        checked={time !== undefined}
        onChange={({ currentTarget: { checked } }) => onChange(checked ? usual : undefined)}
      />
      <ThresholdInput
        label={`${label}: ${t('howMany')}`}
        value={shown.n}
        format={null}
        unit={null}
        takes="number"
        onChange={(n) => Number.isInteger(n) && Number(n) > 0 && onChange({ ...shown, n: Number(n) })}
      />
      <PickWord
        label={`${label}: ${t('unit')}`}
        value={shown.unit}
        words={recordOf(QUIET_UNITS, (unit) => t(UNIT_TEXTS[unit], { count: shown.n }))}
        onPick={(unit) => onChange({ ...shown, unit })}
      />
      <span>{after}</span>
    </div>
  );
}
