import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
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
  title: 'textContains',
  says: 'containsBeginsOrNot',
  needs: ['texts'],
  Condition: TextCondition,
};

const STRICTNESS = {
  no: 'caseAccentsDoNot',
  case: 'caseMatters',
  accents: 'accentsMatter',
  both: 'caseAccentsMatter',
} as const;
type Strictness = keyof typeof STRICTNESS;

function TextCondition({ when, field, fields, onChange }: ConditionProps<TextWhen>) {
  const t = useTranslations('bench');
  const words = when.any.filter((operand) => typeof operand === 'string' || typeof operand === 'number').map(String);
  const others = when.any.filter((operand) => typeof operand === 'object');
  const put = (any: readonly Operand[]) => any.length && onChange({ ...when, any });
  return (
    <>
      <PickWord label={t('test')} value={when.is} words={TEXT_TESTS} onPick={(is) => onChange({ ...when, is })} />{' '}
      <WordList
        label={t('word')}
        words={words}
        between={isOpposite(when.is) ? t('nor') : t('or')}
        wrong={(word) => (when.is === 'pattern' && !isPattern(word) ? t('notPatternCanRead') : undefined)}
        onChange={(next) => put([...next, ...others])}
      />
      {others.map((operand, at) => (
        <span key={at}>
          {' '}
          {t('or')}{' '}
          <PickOperand
            label={t('wordFromElsewhere')}
            operand={operand}
            field={field}
            fields={fields}
            takes="any"
            outright={t('anyWord')}
            onChange={(next) => put([...words, ...(others as readonly Operand[]).with(at, next)])}
          />
          {when.any.length > 1 && (
            <ActionIcon
              variant="subtle"
              color="ink"
              size="xs"
              aria-label={t('removeWordFromElsewhere', { at: at + 1 })}
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
  const t = useTranslations('bench');
  const session = useSession();
  const sources = [
    { id: 'cell', words: t('whatACellHolds') },
    ...fields.map(({ id, label }) => ({ id, words: t('theRecordsLabel', { label }) })),
  ];
  const pick = (id: string) => {
    const { column, position } = session.get().selection.anchor;
    onAdd(id === 'cell' ? { cell: cellAddress(column, position) } : { field: id });
  };
  return <Pick label={t('addAWordFrom')} value="" shown={t('orFrom')} options={sources} onPick={pick} />;
}

interface StrictnessProps {
  readonly when: TextWhen;
  readonly onChange: ConditionProps<TextWhen>['onChange'];
}

/** Whether case and accents matter. */
function PickStrictness({ when, onChange }: StrictnessProps) {
  const t = useTranslations('bench');
  const strictness: Strictness = when.case ? (when.accents ? 'both' : 'case') : when.accents ? 'accents' : 'no';
  return (
    <PickWord
      label={t('whatMatters')}
      value={strictness}
      words={eachText(STRICTNESS, (key) => t(key))}
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
