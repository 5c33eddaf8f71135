import { nanoid } from 'nanoid';
import { messageOf } from '../../core/values/error-message';
import { itemAt } from '../../core/values/item-at';
import { lookNames, rulesForSheet } from '../../core/exchange/rules/rules-for-sheet';
import { mapRuleReferences } from '../../core/rules/shape/map-rule-references';
import { readRuleSet } from '../../core/rules/shape/read-rule-set';
import type { Operation } from '../../core/sheet/change';
import { keysAt } from '../../core/sheet/layout/keys-at';
import type { Sheet } from '../../core/sheet/sheet';
import type { AnswerOf } from '../../protocol/engine-messages';
import { putRules } from '../../core/rules/shape/stored-rule';

interface Brought {
  readonly operations: readonly Operation[];
  readonly told: AnswerOf<'bring-rules'>;
}

/** The operations that add the rules of a rule file after those of a sheet. Fails in words for the person. */
export function bringRules(sheet: Sheet, text: string): Brought {
  const read = readRuleSet(parse(text), lookNames(sheet));
  if ('message' in read) throw new Error(`This rule file cannot be used: ${read.message}`);
  const { rules, looks } = rulesForSheet(read.rules, sheet, () => nanoid(10));
  if (rules.length === 0) throw new Error('There are no rules in this file.');
  const unknown = new Set<string>();
  const note = (field: string) => {
    if (sheet.findColumn(field) === undefined) unknown.add(field);
    return field;
  };
  rules.forEach((rule) => mapRuleReferences(rule, { field: note }));
  const there = sheet.rulesInOrder();
  const keys = keysAt(there, there.length, rules.length);
  return {
    operations: [
      ...(looks.length ? [{ kind: 'put-parts' as const, parts: looks }] : []),
      putRules(rules.map((rule, at) => ({ id: rule.id, key: itemAt(keys, at), rule }))),
    ],
    told: { names: rules.map(({ name }) => name), unknown: [...unknown] },
  };
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new Error(`This is no rule file: it is not JSON (${messageOf(error)})`, { cause: error });
  }
}
