import Joi from 'joi';
import { FIRST_FAMILY } from '../core/looks/first-family';
import type { Rule } from '../core/rules/rule';
import { ruleSchema, savedLooksOf } from '../core/rules/rule-schema';
import type { Change, StoredRule } from '../core/sheet/change';
import { ROW_ROLES } from '../core/sheet/row-role';

const id = Joi.string()
  .pattern(/^[\w-]+$/)
  .max(64);
/** Longest text that a cell takes, in UTF-16 code units. */
const LONGEST_INPUT = 1_000_000;
const input = Joi.string()
  .allow('')
  .max(LONGEST_INPUT)
  .messages({
    'string.max': `A cell takes at most ${LONGEST_INPUT.toLocaleString('en')} characters. What you entered is longer and was not kept.`,
  });

const key = Joi.string()
  .min(1)
  .max(500)
  .pattern(/^[A-Za-z0-9]+$/);

const knownLooks = new Set(FIRST_FAMILY.map((look) => look.id));
const rule = ruleSchema.custom((value: Rule, helpers) => {
  const unknown = savedLooksOf(value).find((name) => !knownLooks.has(name));
  return unknown === undefined ? value : helpers.message({ custom: `{{#label}} refers to a look that does not exist: ${unknown}` });
});

const storedRule = Joi.object<StoredRule>({ id: id.required(), key: key.required(), rule: rule.required() }).custom((value: StoredRule, helpers) =>
  value.rule.id === value.id ? value : helpers.message({ custom: '{{#label}}.rule.id must be the same as its id' }),
);

const operation = Joi.object().when('.kind', {
  switch: [
    {
      is: 'set-cells',
      then: Joi.object({
        kind: Joi.string(),
        cells: Joi.array()
          .items(Joi.object({ row: id.required(), field: id.required(), input: input.required() }))
          .min(1)
          .required(),
      }),
    },
    {
      is: 'insert-rows',
      then: Joi.object({
        kind: Joi.string(),
        rows: Joi.array()
          .items(
            Joi.object({
              id: id.required(),
              key: key.required(),
              role: Joi.valid(...ROW_ROLES).required(),
              cells: Joi.object().pattern(id, input).required(),
            }),
          )
          .unique('id')
          .min(1)
          .required(),
      }),
    },
    { is: 'remove-rows', then: Joi.object({ kind: Joi.string(), rows: Joi.array().items(id).min(1).required() }) },
    {
      is: 'put-rules',
      then: Joi.object({
        kind: Joi.string(),
        rules: Joi.array().items(storedRule).min(1).required(),
      }),
    },
    { is: 'remove-rules', then: Joi.object({ kind: Joi.string(), rules: Joi.array().items(id).min(1).required() }) },
  ],
  otherwise: Joi.object({ kind: Joi.valid('set-cells', 'insert-rows', 'remove-rows', 'put-rules', 'remove-rules').required() }).unknown(),
});

/** A change as it arrives from outside. */
export const changeSchema = Joi.object<Change>({ id: id.required(), operations: Joi.array().items(operation).min(1).required() }).label('change');
