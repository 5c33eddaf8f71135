import type { Operation, KeyedRule } from './change';
import type { Field } from './field';
import type { FieldId, PartId, RuleId } from './ids';
import type { SheetPart } from './sheet-part';

/*
 * What takes it back that fields, rules or parts were put: those that were new are removed, those that were replaced
 * are put again.
 */

export function fieldInverse(before: readonly Field[], added: readonly FieldId[]): Operation[] {
  const inverse: Operation[] = [];
  if (added.length) inverse.push({ kind: 'remove-fields', fields: added });
  if (before.length) inverse.push({ kind: 'put-fields', fields: before });
  return inverse;
}

export function ruleInverse({
  before,
  added,
}: {
  readonly before: readonly KeyedRule[];
  readonly added: readonly RuleId[];
}): Operation[] {
  const inverse: Operation[] = [];
  if (added.length) inverse.push({ kind: 'remove-rules', rules: added });
  if (before.length) inverse.push({ kind: 'put-rules', rules: before });
  return inverse;
}

export function partInverse({
  before,
  added,
}: {
  readonly before: readonly SheetPart[];
  readonly added: readonly PartId[];
}): Operation[] {
  const inverse: Operation[] = [];
  if (added.length) inverse.push({ kind: 'remove-parts', parts: added });
  if (before.length) inverse.push({ kind: 'put-parts', parts: before });
  return inverse;
}
