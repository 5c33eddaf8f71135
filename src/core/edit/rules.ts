import { itemAt } from '../values/item-at';
import type { Look } from '../looks/look';
import { carryRule } from '../rules/move/carry-rule';
import { namedFields } from '../rules/shape/named-fields';
import type { Rule } from '../rules/shape/rule';
import { groupBetween, inGroup } from '../rules/shape/rule-groups';
import { ruleSentence, type NamedField } from '../rules/shape/sentence-words';
import { putRules, rulesOf, type StoredRule } from '../rules/shape/stored-rule';
import type { Paints, Reads } from '../rules/terms';
import { parseRanges, writeArea, type CellRange } from '../sheet/address';
import type { FieldId, RuleId } from '../sheet/ids';
import { keysAt } from '../sheet/layout/keys-at';
import type { Sheet } from '../sheet/sheet';
import { countWords, type Editor, type EditTools } from './editor';

/** The longest name of a rule, in UTF-16 code units. */
export const MAX_RULE_NAME = 200;

interface RuleIds {
  readonly rules: readonly RuleId[];
}

/**
 * Cells that rules are to read: their fields, for rules that read fields, or just these ranges, for those that read
 * ranges.
 */
interface Cells {
  readonly fields: readonly FieldId[];
  readonly areas: readonly CellRange[];
}

/** A change of several rules at once: absent properties stay. */
export interface RuleChange {
  readonly on?: boolean;
  readonly settles?: boolean;
  readonly paints?: Paints;
  /** For rules that have one look; those with a look for each outcome keep theirs. */
  readonly look?: Look;
  /** Null takes the rules out of their group. */
  readonly group?: string | null;
}

const rulesIn = (sheet: Sheet, tools: EditTools): readonly StoredRule[] => tools.rules?.() ?? rulesOf(sheet);
const named = (rules: readonly StoredRule[], ids: readonly RuleId[]): StoredRule[] =>
  rules.filter(({ id }) => ids.includes(id));
const put = (rules: readonly StoredRule[]) => (rules.length ? [putRules(rules)] : []);

/** New rules, or rules as they have been changed on the bench. */
export const putRulesEditor: Editor<{ readonly rules: readonly StoredRule[] }> = {
  operations: (_, { rules }) => put(rules),
  says: ({ rules }) => (rules.length === 1 ? `rule “${itemAt(rules, 0).rule.name}”` : countWords(rules.length, 'rule')),
};

/** The same rule once more, after it in the order. */
export const duplicateRule: Editor<{ readonly rule: RuleId }> = {
  operations(sheet, { rule: id }, tools) {
    const rules = rulesIn(sheet, tools);
    const at = rules.findIndex((stored) => stored.id === id);
    if (at < 0) return [];
    const { rule } = itemAt(rules, at);
    const made = tools.newId();
    const name = `${rule.name} (copy)`.slice(0, MAX_RULE_NAME);
    return [putRules([{ id: made, key: itemAt(keysAt(rules, at + 1, 1), 0), rule: { ...rule, id: made, name } }])];
  },
  says: () => 'duplicate rule',
};

/**
 * A rule moved in the order of precedence, so that it comes after another, or first: with its new order key, and with
 * the group of the rules around it. Undefined where one of the two is not there.
 */
export function movedRule(
  rules: readonly StoredRule[],
  { rule: id, after }: { readonly rule: RuleId; readonly after: RuleId | null },
): StoredRule | undefined {
  const moving = rules.find((stored) => stored.id === id);
  const rest = rules.filter((stored) => stored.id !== id);
  const place = after === null ? 0 : rest.findIndex((stored) => stored.id === after) + 1;
  if (!moving || (after !== null && place === 0)) return undefined;
  const group = groupBetween(moving.rule.group, rest[place - 1]?.rule.group, rest[place]?.rule.group);
  return { id, key: itemAt(keysAt(rest, place, 1), 0), rule: inGroup(moving.rule, group) };
}

export const moveRule: Editor<{ readonly rule: RuleId; readonly after: RuleId | null }> = {
  operations(sheet, edit, tools) {
    const moved = movedRule(rulesIn(sheet, tools), edit);
    return moved ? [putRules([moved])] : [];
  },
  says: () => 'move rule',
};

export const removeRules: Editor<RuleIds> = {
  operations(sheet, { rules }, tools) {
    const ids = named(rulesIn(sheet, tools), rules).map(({ id }) => id);
    return ids.length ? [{ kind: 'remove-rules', rules: ids }] : [];
  },
  says: ({ rules }) => `delete ${countWords(rules.length, 'rule')}`,
};

export const changeRules: Editor<RuleIds & { readonly to: RuleChange }> = {
  operations: (sheet, { rules, to }, tools) =>
    put(named(rulesIn(sheet, tools), rules).map((stored) => ({ ...stored, rule: changed(stored.rule, to) }))),
  says: ({ rules, to }) => changeWords(countWords(rules.length, 'rule'), to),
};

function changed(rule: Rule, { group, look, ...plain }: RuleChange): Rule {
  const next = { ...rule, ...plain, ...(look && rule.look ? { look } : {}) };
  return group === undefined ? next : inGroup(next, group ?? undefined);
}

function changeWords(rules: string, { on, paints, look, group }: RuleChange): string {
  if (on !== undefined) return `switch ${rules} ${on ? 'on' : 'off'}`;
  if (paints) return `what ${rules} paint`;
  if (look) return `look of ${rules}`;
  if (group !== undefined) return group === null ? `ungroup ${rules}` : `group ${rules}`;
  return `change ${rules}`;
}

/** Lets rules read other cells; what they say stays. */
export const reachRules: Editor<RuleIds & Cells> = {
  operations: (sheet, { rules, ...cells }, tools) =>
    put(
      named(rulesIn(sheet, tools), rules).map((stored) => ({
        ...stored,
        rule: { ...stored.rule, reads: readsOf(stored.rule.reads, cells) },
      })),
    ),
  says: ({ rules }) => `cells of ${countWords(rules.length, 'rule')}`,
};

/** Copies of rules over other cells: relative references of their formulas move along. */
export const carryRules: Editor<RuleIds & Cells> = {
  operations(sheet, { rules: ids, ...cells }, tools) {
    const rules = rulesIn(sheet, tools);
    const fields = namedFields(sheet);
    const copies = named(rules, ids).map(({ id, rule }): StoredRule => {
      const made = tools.newId();
      const reads = readsOf(rule.reads, cells);
      const carried = { ...carryRule(rule, reads, distance(rule.reads, cells, fields)), id: made };
      const key = itemAt(keysAt(rules, rules.findIndex((stored) => stored.id === id) + 1, 1), 0);
      return { id: made, key, rule: { ...carried, name: carriedName(rule, carried, fields) } };
    });
    return put(copies);
  },
  says: ({ rules }) => `carry ${countWords(rules.length, 'rule')}`,
};

/** The cells of a rule as `Reads`, fields or ranges as before. */
const readsOf = (before: Reads, { fields, areas }: Cells): Reads =>
  'cells' in before ? { cells: areas.map(writeArea).join(' ') } : { ...before, fields };

/** How far cells lie from the first cell that a rule reads. A rule over fields moves by columns alone. */
function distance(
  reads: Reads,
  { areas }: Cells,
  fields: readonly NamedField[],
): { readonly columns: number; readonly rows: number } {
  const [to] = areas;
  if (!to) return { columns: 0, rows: 0 };
  if ('fields' in reads) {
    const first = fields.findIndex(({ id }) => reads.fields.includes(id));
    return { columns: to.left - Math.max(0, first), rows: 0 };
  }
  const [from] = parseRanges(reads.cells) ?? [];
  return { columns: to.left - (from?.left ?? 0), rows: to.top - (from?.top ?? 0) };
}

/** A rule that was named after its sentence still is; one with a name of its own says where it is now. */
function carriedName(rule: Rule, carried: Rule, fields: readonly NamedField[]): string {
  if (rule.name === ruleSentence(fields, rule)) return ruleSentence(fields, carried).slice(0, MAX_RULE_NAME);
  const { reads } = carried;
  const labels =
    'cells' in reads ? [reads.cells] : fields.filter(({ id }) => reads.fields.includes(id)).map(({ label }) => label);
  return `${rule.name} (${labels.join(', ')})`.slice(0, MAX_RULE_NAME);
}
