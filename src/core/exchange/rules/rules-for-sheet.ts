import { lookPart, lookParts, OWN_LOOK, sheetLooks, type NamedLook } from '../../sheet/sheet-looks';
import { mapRuleReferences } from '../../rules/shape/map-rule-references';
import { fieldByLabel, type RuleSet } from '../../rules/shape/read-rule-set';
import type { Rule } from '../../rules/shape/rule';
import type { RuleId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import type { LookPart } from '../../sheet/sheet-part';

/** Looks that every sheet has: a rule file may refer to them as they are here. */
const FAMILY = new Set(sheetLooks([], 'light').map(({ id }) => id));

/** Prefix of the ids of a rule file's own looks in a sheet. */
const named = (id: string): string =>
  FAMILY.has(id) || id.startsWith(OWN_LOOK) ? id : OWN_LOOK + id.replace(/[^\w-]/g, '-');

/**
 * The rules of a rule file as a sheet keeps them, its fields matched by label, and the looks that it saves. A label that is
 * nowhere stays as it is, and the rule that names it has a problem until there is such a field. `idOf` gives a rule its
 * id here.
 */
export function rulesForSheet(
  { rules, looks }: RuleSet,
  sheet: Sheet,
  idOf: (rule: Rule) => RuleId,
): { readonly rules: readonly Rule[]; readonly looks: readonly LookPart[] } {
  const find = fieldByLabel(sheet);
  const idOfLook = (name: string): string =>
    Object.hasOwn(looks, name)
      ? named(name)
      : (looksOfSheet(sheet).find((look) => isCalled(look, name))?.id ?? named(name));
  return {
    rules: rules.map((rule) => ({ ...withLooks(mapRuleReferences(rule, { field: find }), idOfLook), id: idOf(rule) })),
    looks: Object.entries(looks).flatMap(([id, look]) =>
      FAMILY.has(id) ? [] : lookPart({ id: named(id), name: id.replace(OWN_LOOK, ''), look }, looks),
    ),
  };
}

const looksOfSheet = (sheet: Sheet): readonly NamedLook[] => sheetLooks(lookParts(sheet.parts.values()), 'light');
const isCalled = ({ id, name }: NamedLook, wanted: string): boolean => id === wanted || name === wanted;

/** What a rule file may call the looks of a sheet: their names and ids. */
export const lookNames = (sheet: Sheet): ReadonlySet<string> =>
  new Set(looksOfSheet(sheet).flatMap(({ id, name }) => [id, name]));

/** The rule with its saved looks by the ids that they have here, wherever it refers to one. */
const withLooks = (rule: Rule, idOfLook: (name: string) => string): Rule =>
  JSON.parse(
    JSON.stringify(rule, (_, value: unknown) =>
      typeof value === 'object' && value !== null && 'look' in value && typeof value.look === 'string'
        ? { ...value, look: idOfLook(value.look) }
        : value,
    ),
  ) as Rule;
