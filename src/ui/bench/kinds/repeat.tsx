import { MEMBERS, type RepeatWhen } from '../../../core/rules/kinds/repeat';
import { PickFields } from '../parts/PickFields';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const repeatBench: BenchKind<RepeatWhen> = {
  title: 'Duplicate or unique values',
  says: 'values that occur more than once, or only once; by one field or a combination',
  needs: 'anything',
  Condition: RepeatCondition,
};

function RepeatCondition({ when, field, fields, onChange }: ConditionProps<RepeatWhen>) {
  const { by, ...rest } = when;
  const first = field?.id ?? fields[0]?.id;
  return (
    <>
      <PickWord label="Test" value={when.is} words={MEMBERS} onPick={(is) => onChange({ ...when, is })} />,{' '}
      <PickWord
        label="Judged by"
        value={by ? 'fields' : 'value'}
        words={{ value: 'by its own value', fields: 'by the combination of' }}
        onPick={(judged) => onChange(judged === 'fields' && first !== undefined ? { ...rest, by: [first] } : rest)}
      />{' '}
      {by && (
        <PickFields label="Combination" value={by} between="and" onPick={(ids) => onChange({ ...rest, by: ids })} />
      )}
    </>
  );
}
