import Joi from 'joi';
import { itemAt } from '../../values/item-at';
import type { Look } from '../../looks/look';
import { lookSchema } from '../../looks/look-schema';
import type { FieldId } from '../../sheet/ids';
import { labelIndex } from '../../sheet/label-index';
import type { Sheet } from '../../sheet/sheet';
import type { Rule } from './rule';
import { ruleSchema, savedLooksOf } from './rule-schema';

/** A rule file that has been checked. Its fields are labels still; see `fieldByLabel`. */
export interface RuleSet {
  readonly rules: readonly Rule[];
  readonly looks: Readonly<Record<string, Look>>;
}

const ruleSetSchema = Joi.object({
  format: Joi.valid('auxesis-rules').required(),
  version: Joi.valid(1).required(),
  rules: Joi.array().items(ruleSchema(Joi)).required().custom(checkIds),
  looks: Joi.object().pattern(Joi.string(), lookSchema(Joi)).default({}),
}).label('the rule file');

function checkIds(rules: readonly Rule[], helpers: Joi.CustomHelpers): readonly Rule[] | Joi.ErrorReport {
  const first = new Map<string, number>();
  for (const [at, { id }] of rules.entries()) {
    const known = first.get(id);
    if (known !== undefined)
      return helpers.message({ custom: `rules[${at}] has the same id as rules[${known}]: ids must differ` });
    first.set(id, at);
  }
  return rules;
}

/**
 * Checks the parsed JSON of a rule file. The message names the place in it and what was expected. Rules may refer to
 * the looks of the file, and to those that are known where they go, by name or id.
 */
export function readRuleSet(
  json: unknown,
  known: ReadonlySet<string> = new Set(),
): { readonly rules: RuleSet } | { readonly message: string } {
  const { error, value } = ruleSetSchema
    .required()
    .validate(json, { convert: false, errors: { wrap: { label: false } } }) as Joi.ValidationResult<RuleSet>;
  if (error) return { message: itemAt(error.details, 0).message };
  for (const [name, look] of Object.entries(value.looks))
    if (look.look !== undefined) return { message: `looks.${name}.look: a saved look cannot refer to another` };
  for (const [at, rule] of value.rules.entries()) {
    const unknown = savedLooksOf(rule).find((name) => !Object.hasOwn(value.looks, name) && !known.has(name));
    if (unknown !== undefined)
      return { message: `rules[${at}] refers to the look "${unknown}", which is not among "looks"` };
  }
  return { rules: value };
}

/** Field ids instead of labels. An unknown label is returned as it is, and the rule that names it has a problem. */
export function fieldByLabel(sheet: Sheet): (label: string) => FieldId {
  const find = labelIndex(sheet);
  return (label) => find(label) ?? label;
}
