import { kindOf } from '../../../core/rules/kinds/registry';
import { sentenceWords } from '../../../core/rules/sentence-words';
import type { ConditionProps } from './bench-kind';

/** A condition that has no pickers yet, told in words: its rule can be named, moved, switched and given another look. */
export const plainBench = { Condition: PlainCondition };

function PlainCondition({ when, field, fields }: ConditionProps) {
  return <b>{kindOf(when).sentence(when, sentenceWords(fields, { fields: field ? [field.id] : [] }))}</b>;
}
