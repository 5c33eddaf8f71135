import Joi from 'joi';
import { lazySchema } from '../../lazy-schema';
import { lookSchema } from '../../looks/look-schema';
import { GONE, parseRanges } from '../../sheet/address';
import { ROW_ROLES } from '../../sheet/row-role';
import { KINDS, KIND_NAMES, kindOf } from '../kinds/registry';
import type { Rule } from './rule';

const labels = lazySchema(() => Joi.array().items(Joi.string()).min(1));

const when = lazySchema(() =>
  Joi.object().when('.kind', {
    switch: KIND_NAMES.map((kind) => ({ is: kind, then: KINDS[kind].schema })),
    otherwise: Joi.object({
      kind: lazySchema(() => Joi.valid(...KIND_NAMES), `one of ${KIND_NAMES.join(', ')}`).required(),
    }).unknown(),
  }),
);

const reads = lazySchema(() =>
  Joi.object({
    fields: labels,
    roles: Joi.array()
      .items(Joi.valid(...ROW_ROLES))
      .min(1),
    cells: Joi.string().custom((text: string, helpers) =>
      text === GONE || parseRanges(text)
        ? text
        : helpers.message({ custom: '{{#label}} must be ranges such as "B2:E7 G2:G7"' }),
    ),
  })
    .nand('cells', 'roles')
    .custom((value: { fields?: unknown; cells?: unknown }, helpers) => {
      if (value.fields && value.cells)
        return helpers.message({ custom: '{{#label}} must have "fields" or "cells", not both' });
      return value.fields || value.cells
        ? value
        : helpers.message({ custom: '{{#label}} must have "fields" or "cells"' });
    }),
);

/** One rule, as files and changes give it. Absent `on` is true, absent `settles` false, absent `name` the id. */
export const ruleSchema = lazySchema<Rule>(() =>
  Joi.object<Rule>({
    id: Joi.string().min(1).max(200).required(),
    name: Joi.string().max(200).default(Joi.ref('id')),
    on: Joi.boolean().default(true),
    settles: Joi.boolean().default(false),
    reads: reads.required(),
    when: when.required(),
    paints: lazySchema(
      () => Joi.alternatives().try(Joi.valid('cell', 'record'), Joi.object({ fields: labels.required() })),
      '"cell", "record" or { "fields": [label...] }',
    ).default('cell'),
    look: lookSchema,
    note: Joi.string().allow('').max(500),
    group: Joi.string().trim().min(1).max(100),
    trials: lazySchema(() =>
      Joi.array().items(
        Joi.object({
          value: Joi.alternatives(Joi.string().allow(''), Joi.number(), Joi.boolean()).allow(null).required(),
          expect: Joi.alternatives(Joi.boolean(), Joi.string(), Joi.number()).allow(null).required(),
        }),
      ),
    ),
  }),
);

/** The names of saved looks that a rule refers to. */
export function savedLooksOf(rule: Rule): string[] {
  return [rule.look, ...(kindOf(rule.when).outcomeLooks(rule.when) ?? [])].flatMap((look) => look?.look ?? []);
}
