import { itemAt } from '../../values/item-at';
import type { Operation } from '../../sheet/change';
import { findRule, putRules, type StoredRule } from '../shape/stored-rule';
import { keysAt } from '../../sheet/layout/keys-at';
import type { Sheet } from '../../sheet/sheet';
import { ruleSetKey, type LookPart, type RuleSetUse } from '../../sheet/sheet-part';
import { carryToSheet } from './carry-to-sheet';
import { ruleSetSheet, type KeptRules } from './rule-set-sheet';

/** A rule set at one of its versions. */
export interface RuleSetVersion {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly body: KeptRules;
}

/** The operations that use a rule set on a sheet, or the labels of missing fields. */
export type UsedRuleSet = { readonly operations: readonly Operation[] } | { readonly missing: readonly string[] };

/**
 * Uses a rule set on a sheet, after the rules that are there. Rules that came from an earlier version are replaced
 * where they stand, also where they were changed here, and those that are no longer in the set are removed; all others
 * stay.
 */
export function putRuleSetToWork(sheet: Sheet, set: RuleSetVersion, newId: () => string): UsedRuleSet {
  const part = sheet.parts.get(ruleSetKey(set.id));
  const known = part?.kind === 'rule-set' ? part.rules : {};
  const from = ruleSetSheet(set.body);
  const there = sheet.rulesInOrder();
  const keys = keysAt(there, there.length, set.body.rules.length);
  const looks = new Map<string, LookPart>();
  const missing = new Set<string>();
  const rules: StoredRule[] = [];
  const uses: Record<string, string> = {};
  for (const [at, rule] of set.body.rules.entries()) {
    const carried = carryToSheet(rule, { from, to: sheet });
    if ('missing' in carried) {
      carried.missing.forEach((label) => missing.add(label));
      continue;
    }
    for (const look of carried.looks) looks.set(look.id, look);
    const before = findRule(sheet, known[rule.id] ?? '');
    const id = before?.id ?? newId();
    uses[rule.id] = id;
    rules.push({ id, key: before?.key ?? itemAt(keys, at), rule: { ...carried.rule, id } });
  }
  if (missing.size) return { missing: [...missing] };
  const gone = Object.entries(known).flatMap(([rule, id]) => (rule in uses || !sheet.rules.has(id) ? [] : id));
  const use: RuleSetUse = {
    id: ruleSetKey(set.id),
    kind: 'rule-set',
    set: set.id,
    name: set.name,
    version: set.version,
    rules: uses,
  };
  return {
    operations: [
      { kind: 'put-parts', parts: [...looks.values(), use] },
      putRules(rules),
      ...(gone.length ? [{ kind: 'remove-rules' as const, rules: gone }] : []),
    ],
  };
}
