import { useTranslations } from 'use-intl';
import { recordOf } from '../../../core/values/typed-keys';
import { KEY_OUTCOMES, NEARLY_LOOK, type KeyWhen } from '../../../core/rules/kinds/key';
import type { Decimal } from '../../../core/values/decimal-comma';
import { useDecimal } from '../../sheet/use-decimal';
import { readThreshold, type Typed } from '../../../core/rules/shape/read-threshold';
import classes from '../Bench.module.css';
import { KeyPicture } from '../picture/KeyPicture';
import { AmountInput } from '../parts/AmountInput';
import { CellInput } from '../parts/CellInput';
import { Pick } from '../parts/Pick';
import { PickLook } from '../look/PickLook';
import { PickWord } from '../parts/PickWord';
import { WordList } from '../parts/WordList';
import { OUTCOME_WORDS } from '../key-words';
import { useOutcomeCounts } from '../use-outcome-counts';
import type { BenchKind, ConditionProps } from './bench-kind';

export const keyBench: BenchKind<KeyWhen> = {
  title: 'checkAnswersAgainstKey',
  says: 'rightWrongEmptyNearly',
  needs: ['texts', 'numbers'],
  Condition: KeyCondition,
  Outcomes: KeyOutcomes,
  Picture: KeyPicture,
};

const NEAR = ['0', '1', '2'] as const;
const NEARNESS = { 0: 'mustExact', 1: 'mayOneLetterOff', 2: 'mayTwoLettersOff' } as const;

function KeyCondition({ when, field, fields, onChange }: ConditionProps<KeyWhen>) {
  const t = useTranslations('bench');
  const decimal = useDecimal();
  const { expect } = when;
  const kind = Array.isArray(expect) ? 'list' : 'field' in expect ? `field ${expect.field}` : 'cells';
  const others = fields.filter((other) => other.id !== field?.id);
  const keyField = 'field' in expect ? fields.find((other) => other.id === expect.field) : undefined;
  const shown = Array.isArray(expect)
    ? t('oneOfThese')
    : 'cells' in expect
      ? t('keyCells')
      : t('theRecordsLabel', { label: keyField?.label ?? t('removedField') });
  const options = [
    { id: 'list', words: t('theseAnswersEverywhereSame') },
    { id: 'cells', words: t('cellsOfTheSheet') },
    ...others.map((other) => ({
      id: `field ${other.id}`,
      words: t('theRecordsLabel', { label: other.label }),
    })),
  ];
  const pick = (id: string) => {
    if (id === 'list') onChange({ ...when, expect: ['answer'] });
    else if (id === 'cells') onChange({ ...when, expect: { cells: 'B2:B9' } });
    else onChange({ ...when, expect: { field: id.slice('field '.length) } });
  };
  return (
    <>
      {t('answers')} <Pick label={t('key')} value={kind} shown={shown} options={options} onPick={pick} />{' '}
      {Array.isArray(expect) && (
        <WordList
          label={t('answer')}
          words={expect.map(String)}
          between={t('or')}
          onChange={(words) => onChange({ ...when, expect: words.map((word) => answerOf(word, decimal)) })}
        />
      )}
      {'cells' in expect && (
        <CellInput
          label={t('cellsOfTheKey')}
          value={expect.cells}
          takes="ranges"
          onChange={(cells) => onChange({ ...when, expect: { cells } })}
        />
      )}
      {t('aWord')}{' '}
      <PickWord
        label={t('nearness')}
        value={String(when.near ?? 0) as (typeof NEAR)[number]}
        words={recordOf(NEAR, (near) => t(NEARNESS[near]))}
        onPick={(near) => onChange(withNearness(when, Number(near)))}
      />
      {t('numberMayOff')}{' '}
      <AmountInput
        label={t('tolerance')}
        value={when.tolerance ?? 0}
        onChange={(tolerance) => onChange({ ...when, tolerance })}
      />
    </>
  );
}

/** Nearly right answers have a look of their own, once there are any. */
const withNearness = (when: KeyWhen, near: number): KeyWhen => ({
  ...when,
  near,
  looks: near === 0 ? when.looks : { near: NEARLY_LOOK, ...when.looks },
});

/** An answer as it is typed: 12 is the number, which 12.0 meets as well. */
const answerOf = (word: string, decimal: Decimal): Typed =>
  readThreshold(word, { format: null, takes: 'any', decimal }) ?? word;

function KeyOutcomes({ when, onChange }: ConditionProps<KeyWhen>) {
  const t = useTranslations('bench');
  const counts = useOutcomeCounts();
  return (
    <>
      <ol className={classes.bands} aria-label={t('outcomes')}>
        {KEY_OUTCOMES.filter((outcome) => outcome !== 'near' || when.near).map((outcome) => (
          <li key={outcome} className={classes.band}>
            <span className={classes.bandRange}>{t(OUTCOME_WORDS[outcome])}</span>
            <PickLook
              label={t('lookOfOutcome', { outcome: t(OUTCOME_WORDS[outcome]).toLowerCase() })}
              value={when.looks[outcome] ?? null}
              allowNone
              onPick={(look) => onChange({ ...when, looks: { ...when.looks, [outcome]: look } })}
            />
            <span>{t('countCells', { count: counts[KEY_OUTCOMES.indexOf(outcome)] ?? 0 })}</span>
          </li>
        ))}
      </ol>
      {!Array.isArray(when.expect) && <p className={classes.note}>{t('severalAnswersCell')}</p>}
    </>
  );
}
