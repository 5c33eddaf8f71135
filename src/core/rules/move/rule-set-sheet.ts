import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';
import { rulesOf } from '../shape/stored-rule';
import { newField } from '../../sheet/field';
import type { FieldId, RuleId } from '../../sheet/ids';
import { Sheet } from '../../sheet/sheet';
import { columnLetters } from '../../sheet/address';
import { lookOfPart, lookParts, OWN_LOOK } from '../../sheet/sheet-looks';
import type { LookPart } from '../../sheet/sheet-part';
import type { Rule } from '../shape/rule';
import { savedLooksOf } from '../shape/rule-schema';

/** The content of a rule set. */
export interface KeptRules {
  readonly fields: readonly { readonly id: FieldId; readonly label: string }[];
  readonly rules: readonly Rule[];
  readonly looks: readonly LookPart[];
}

/** Rules of a sheet as a rule set keeps them: with the labels of all its fields, since formulas name them by place. */
export function keptRules(sheet: Sheet, chosen: readonly RuleId[]): KeptRules {
  const rules = rulesOf(sheet).flatMap(({ id, rule }) => (chosen.includes(id) ? rule : []));
  const used = new Set(rules.flatMap((rule) => savedLooksOf(rule)).filter((look) => look.startsWith(OWN_LOOK)));
  return {
    fields: sheet.fields.map(({ id }, column) => ({ id, label: sheet.labelOf(column) ?? columnLetters(column) })),
    rules,
    looks: lookParts(sheet.parts.values()).filter(({ id }) => used.has(lookOfPart(id) ?? '')),
  };
}

/** A sheet that stands for the one where the rules were made: its fields with their labels, and room for one record. */
export function ruleSetSheet({ fields, looks }: KeptRules): Sheet {
  const keys = generateNKeysBetween(null, null, fields.length);
  const made = new Sheet(fields.map(({ id }, at) => newField(id, itemAt(keys, at))));
  made.apply({
    kind: 'insert-rows',
    rows: [
      {
        id: 'labels',
        key: 'a0',
        role: 'header',
        cells: Object.fromEntries(fields.map(({ id, label }) => [id, label])),
      },
      { id: 'first', key: 'a1', role: 'record', cells: {} },
    ],
  });
  made.parts.put(looks);
  return made;
}
