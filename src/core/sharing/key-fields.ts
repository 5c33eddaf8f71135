import { isAnswerList } from '../rules/kinds/key';
import type { Rule } from '../rules/shape/rule';
import { GONE, parseRanges } from '../sheet/address';
import type { Field } from '../sheet/field';
import type { FieldId } from '../sheet/ids';

/** The fields that hold the answers of the answer keys, also of rules that are off. */
export function keyFields(rules: readonly Rule[], fields: readonly Field[]): Set<FieldId> {
  const found = new Set<FieldId>();
  for (const { when } of rules) {
    if (when.kind !== 'key' || isAnswerList(when.expect)) continue;
    const { expect } = when;
    if ('field' in expect) found.add(expect.field);
    else if (expect.cells !== GONE)
      for (const { left, right } of parseRanges(expect.cells) ?? [])
        for (const { id } of fields.slice(left, right + 1)) found.add(id);
  }
  return found;
}
