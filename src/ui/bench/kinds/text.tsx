import { isPattern, isOpposite, TEXT_TESTS, type TextWhen } from '../../../core/rules/kinds/text';
import type { Operand } from '../../../core/rules/rule';
import { PickOperand } from '../parts/PickOperand';
import { PickWord } from '../parts/PickWord';
import { WordList } from '../parts/WordList';
import type { BenchKind, ConditionProps } from './bench-kind';

export const textBench: BenchKind<TextWhen> = {
  title: 'Look for words',
  says: 'contains, begins with, is or is not any of some words, or fits a pattern',
  needs: ['texts'],
  Condition: TextCondition,
};

const STRICTNESS = {
  no: 'case and accents do not matter',
  case: 'case matters',
  accents: 'accents matter',
  both: 'case and accents matter',
} as const;
type Strictness = keyof typeof STRICTNESS;

function TextCondition({ when, field, fields, onChange }: ConditionProps<TextWhen>) {
  const words = when.any.filter((operand) => typeof operand === 'string' || typeof operand === 'number').map(String);
  const others = when.any.filter((operand) => typeof operand === 'object');
  const strictness: Strictness = when.case ? (when.accents ? 'both' : 'case') : when.accents ? 'accents' : 'no';
  const put = (any: readonly Operand[]) => any.length && onChange({ ...when, any });
  return (
    <>
      <PickWord label="Test" value={when.is} words={TEXT_TESTS} onPick={(is) => onChange({ ...when, is })} />{' '}
      <WordList
        label="Word"
        words={words}
        between={isOpposite(when.is) ? 'nor' : 'or'}
        wrong={(word) => (when.is === 'pattern' && !isPattern(word) ? 'Not a pattern that can be read' : undefined)}
        onChange={(next) => put([...next, ...others])}
      />
      {others.map((operand, at) => (
        <span key={at}>
          {' '}
          or{' '}
          <PickOperand
            label="Word from elsewhere"
            operand={operand}
            field={field}
            fields={fields}
            takes="any"
            outright="word"
            onChange={(next) => put([...words, ...(others as readonly Operand[]).with(at, next)])}
          />
        </span>
      ))}{' '}
      (
      <PickWord
        label="What matters"
        value={strictness}
        words={STRICTNESS}
        onPick={(choice) => onChange({ ...when, case: choice === 'case' || choice === 'both', accents: choice === 'accents' || choice === 'both' })}
      />
      )
    </>
  );
}
