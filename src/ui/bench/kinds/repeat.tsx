import { useTranslations } from 'use-intl';
import { MEMBERS, type RepeatWhen } from '../../../core/rules/kinds/repeat';
import { PickFields } from '../parts/PickFields';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const repeatBench: BenchKind<RepeatWhen> = {
  title: 'duplicateOrUniqueValues',
  says: 'valuesOccurMoreThan',
  needs: 'anything',
  Condition: RepeatCondition,
};

function RepeatCondition({ when, field, fields, onChange }: ConditionProps<RepeatWhen>) {
  const t = useTranslations('bench');
  const { by, ...rest } = when;
  const first = field?.id ?? fields[0]?.id;
  return (
    <>
      <PickWord label={t('test')} value={when.is} words={MEMBERS} onPick={(is) => onChange({ ...when, is })} />,{' '}
      <PickWord
        label={t('judgedBy')}
        value={by ? 'fields' : 'value'}
        words={{ value: t('byItsOwnValue'), fields: t('byTheCombinationOf') }}
        onPick={(judged) => onChange(judged === 'fields' && first !== undefined ? { ...rest, by: [first] } : rest)}
      />{' '}
      {by && (
        <PickFields
          label={t('combination')}
          value={by}
          between="and"
          onPick={(ids) => onChange({ ...rest, by: ids })}
        />
      )}
    </>
  );
}
