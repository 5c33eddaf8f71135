import type { FieldId } from '../../sheet/ids';
import { thresholdText } from '../../values/threshold-text';
import type { Reads, SentenceWords } from '../terms';
import { kindOf } from '../kinds/registry';
import { quietWords } from './quiet';
import type { Rule } from './rule';

/** The facts about a field that a sentence uses. */
export interface NamedField {
  readonly id: FieldId;
  readonly label: string;
  readonly format: string | null;
  readonly unit: string | null;
}

/** The words for a rule's sentence: labels for fields, numbers in the format and unit of the field that is read. */
export function sentenceWords(fields: readonly NamedField[], reads: Reads): SentenceWords {
  const read = 'fields' in reads ? fields.find((field) => field.id === reads.fields[0]) : undefined;
  const label = (id: FieldId): string => fields.find((field) => field.id === id)?.label ?? 'a deleted field';
  return {
    field: label,
    operand(operand) {
      if (typeof operand === 'number')
        return thresholdText(operand, read?.format ?? null) + (read?.unit ? ` ${read.unit}` : '');
      if (typeof operand !== 'object') return typeof operand === 'string' ? `“${operand}”` : String(operand);
      if ('cell' in operand) return operand.cell;
      if ('formula' in operand) return operand.formula;
      const times = operand.times !== undefined && operand.times !== 1 ? `${operand.times} × ` : '';
      const plus = operand.plus ? ` ${operand.plus < 0 ? '−' : '+'} ${Math.abs(operand.plus)}` : '';
      return times + label(operand.field) + plus;
    },
  };
}

/** More fields than these are not listed one by one. */
const MAX_TOLD = 3;

/**
 * Several fields in words: "Jan", "Jan or Feb", "Jan to Dec" where they stand side by side, "Jan, Mar or 4 others"
 * else.
 */
export function fieldsWords(fields: readonly NamedField[], ids: readonly FieldId[], between: 'or' | 'and'): string {
  const labels = ids.map((id) => fields.find((field) => field.id === id)?.label ?? 'a deleted field');
  if (labels.length <= MAX_TOLD) return labels.join(` ${between} `);
  const first = fields.findIndex(({ id }) => id === ids[0]);
  if (first >= 0 && ids.every((id, at) => fields[first + at]?.id === id)) return `${labels[0]} to ${labels.at(-1)}`;
  return `${labels.slice(0, 2).join(', ')} ${between} ${labels.length - 2} others`;
}

/** The sentence of a rule, and when its findings are reported, where not at once. */
export function wholeSentence(fields: readonly NamedField[], rule: Pick<Rule, 'reads' | 'when' | 'quiet'>): string {
  const quiet = quietWords(rule, sentenceWords(fields, rule.reads));
  return quiet === null ? ruleSentence(fields, rule) : `${ruleSentence(fields, rule)}; found ${quiet}`;
}

/** The sentence of a rule: "Dissolved oxygen is below 5.0 mg/L". */
export function ruleSentence(fields: readonly NamedField[], { reads, when }: Pick<Rule, 'reads' | 'when'>): string {
  const words = sentenceWords(fields, reads);
  const where = 'fields' in reads ? fieldsWords(fields, reads.fields, 'or') : reads.cells;
  return `${where} ${kindOf(when).sentence(when, words)}`;
}
