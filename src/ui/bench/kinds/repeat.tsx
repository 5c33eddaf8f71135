import { MEMBERS, type RepeatWhen } from '../../../core/rules/kinds/repeat';
import { Pick } from '../parts/Pick';
import { PickFields } from '../parts/PickFields';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const repeatBench: BenchKind<RepeatWhen> = {
  title: 'Find what repeats',
  says: 'met more than once, only once, the first of several; by one field or a combination',
  suits: () => true,
  Condition: RepeatCondition,
};

function RepeatCondition({ when, field, fields, onChange }: ConditionProps<RepeatWhen>) {
  const { by, ...rest } = when;
  const first = field?.id ?? fields[0]?.id;
  return (
    <>
      <PickWord label="Test" value={when.is} words={MEMBERS} onPick={(is) => onChange({ ...when, is })} />,{' '}
      <Pick
        label="Judged by"
        value={by ? 'by' : 'value'}
        shown={by ? 'by the combination of' : 'by its own value'}
        options={[
          { id: 'value', words: 'by its own value' },
          { id: 'by', words: 'by a combination of fields of the record' },
        ]}
        onPick={(id) => onChange(id === 'by' && first !== undefined ? { ...rest, by: [first] } : rest)}
      />{' '}
      {by && <PickFields label="Combination" value={by} between="and" onPick={(ids) => onChange({ ...rest, by: ids })} />}
    </>
  );
}
