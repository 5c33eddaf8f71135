import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { isPattern, isOpposite, TEXT_TESTS, type TextWhen } from '../../../core/rules/kinds/text';
import type { Operand } from '../../../core/rules/terms';
import { cellAddress } from '../../../core/sheet/address';
import { useSession } from '../../sheet/use-session';
import { Pick } from '../parts/Pick';
import { PickOperand } from '../parts/PickOperand';
import { PickWord } from '../parts/PickWord';
import { WordList } from '../parts/WordList';
import type { BenchKind, ConditionProps } from './bench-kind';

export const textBench: BenchKind<TextWhen> = {
  title: 'Text contains',
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
          {when.any.length > 1 && (
            <ActionIcon
              variant="subtle"
              color="ink"
              size="xs"
              aria-label={`Remove word from elsewhere ${at + 1}`}
              onClick={() => put([...words, ...others.toSpliced(at, 1)])}
            >
              <IconX size={11} stroke={1.5} />
            </ActionIcon>
          )}
        </span>
      ))}{' '}
      <AddFromElsewhere
        fields={fields.filter(({ id }) => id !== field?.id)}
        onAdd={(operand) => put([...words, ...others, operand])}
      />{' '}
      (<PickStrictness when={when} onChange={onChange} />)
    </>
  );
}

interface AddFromElsewhereProps {
  readonly fields: ConditionProps<TextWhen>['fields'];
  readonly onAdd: (operand: Operand) => void;
}

/** Adds a word that a cell or another field of the record holds. */
function AddFromElsewhere({ fields, onAdd }: AddFromElsewhereProps) {
  const session = useSession();
  const sources = [
    { id: 'cell', words: 'what a cell holds' },
    ...fields.map(({ id, label }) => ({ id, words: `the record’s ${label}` })),
  ];
  const pick = (id: string) => {
    const { column, position } = session.get().selection.anchor;
    onAdd(id === 'cell' ? { cell: cellAddress(column, position) } : { field: id });
  };
  return <Pick label="Add a word from" value="" shown="or from…" options={sources} onPick={pick} />;
}

interface StrictnessProps {
  readonly when: TextWhen;
  readonly onChange: ConditionProps<TextWhen>['onChange'];
}

/** Whether case and accents matter. */
function PickStrictness({ when, onChange }: StrictnessProps) {
  const strictness: Strictness = when.case ? (when.accents ? 'both' : 'case') : when.accents ? 'accents' : 'no';
  return (
    <PickWord
      label="What matters"
      value={strictness}
      words={STRICTNESS}
      onPick={(choice) =>
        onChange({
          ...when,
          case: choice === 'case' || choice === 'both',
          accents: choice === 'accents' || choice === 'both',
        })
      }
    />
  );
}
