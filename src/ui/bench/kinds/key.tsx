import { counted } from '../../../core/values/counted';
import { KEY_OUTCOMES, type KeyWhen } from '../../../core/rules/kinds/key';
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
  title: 'Check answers against a key',
  says: 'right, wrong and empty; nearly right as an option',
  needs: ['texts', 'numbers'],
  Condition: KeyCondition,
  Outcomes: KeyOutcomes,
  Picture: KeyPicture,
};

const NEARNESS = { 0: 'must be exact', 1: 'may be one letter off', 2: 'may be two letters off' } as const;

function KeyCondition({ when, field, fields, onChange }: ConditionProps<KeyWhen>) {
  const { expect } = when;
  const kind = Array.isArray(expect) ? 'list' : 'field' in expect ? `field ${expect.field}` : 'cells';
  const others = fields.filter((other) => other.id !== field?.id);
  const keyField = 'field' in expect ? fields.find((other) => other.id === expect.field) : undefined;
  const shown = Array.isArray(expect)
    ? 'one of these:'
    : 'cells' in expect
      ? 'cells'
      : `the record’s ${keyField?.label ?? 'removed field'}`;
  const options = [
    { id: 'list', words: 'these answers, everywhere the same' },
    { id: 'cells', words: 'cells of the sheet' },
    ...others.map((other) => ({ id: `field ${other.id}`, words: `the record’s ${other.label}` })),
  ];
  const pick = (id: string) => {
    if (id === 'list') onChange({ ...when, expect: ['answer'] });
    else if (id === 'cells') onChange({ ...when, expect: { cells: 'B2:B9' } });
    else onChange({ ...when, expect: { field: id.slice('field '.length) } });
  };
  return (
    <>
      answers <Pick label="Key" value={kind} shown={shown} options={options} onPick={pick} />{' '}
      {Array.isArray(expect) && (
        <WordList
          label="Answer"
          words={expect.map(String)}
          between="or"
          onChange={(words) => onChange({ ...when, expect: words.map(answerOf) })}
        />
      )}
      {'cells' in expect && (
        <CellInput
          label="Cells of the key"
          value={expect.cells}
          takes="ranges"
          onChange={(cells) => onChange({ ...when, expect: { cells } })}
        />
      )}
      ; a word{' '}
      <PickWord
        label="Nearness"
        value={String(when.near ?? 0) as '0' | '1' | '2'}
        words={NEARNESS}
        onPick={(near) => onChange({ ...when, near: Number(near) })}
      />
      , a number may be off by{' '}
      <AmountInput
        label="Tolerance"
        value={when.tolerance ?? 0}
        onChange={(tolerance) => onChange({ ...when, tolerance })}
      />
    </>
  );
}

/** An answer as it is typed: 12 is the number, which 12.0 meets as well. */
const answerOf = (word: string): Typed => readThreshold(word, { format: null, takes: 'any' }) ?? word;

function KeyOutcomes({ when, onChange }: ConditionProps<KeyWhen>) {
  const counts = useOutcomeCounts();
  return (
    <ol className={classes.bands} aria-label="Outcomes">
      {KEY_OUTCOMES.filter((outcome) => outcome !== 'near' || when.near).map((outcome) => (
        <li key={outcome} className={classes.band}>
          <span className={classes.bandRange}>{OUTCOME_WORDS[outcome]}</span>
          <PickLook
            label={`Look of ${OUTCOME_WORDS[outcome].toLowerCase()}`}
            value={when.looks[outcome] ?? null}
            allowNone
            onPick={(look) => onChange({ ...when, looks: { ...when.looks, [outcome]: look } })}
          />
          <span>{counted(counts[KEY_OUTCOMES.indexOf(outcome)] ?? 0, 'cell')}</span>
        </li>
      ))}
    </ol>
  );
}
