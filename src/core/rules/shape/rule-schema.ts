import { lazySchema } from '../../lazy-schema';
import { lookSchema } from '../../looks/look-schema';
import { GONE, parseRanges } from '../../sheet/address';
import { ROW_ROLES } from '../../sheet/row-role';
import { KINDS, KIND_NAMES, kindOf } from '../kinds/registry';
import { quietSchema, rearmMistake } from './quiet';
import type { Rule } from './rule';

const labels = lazySchema((joi) => joi.array().items(joi.string()).min(1));

const kindName = lazySchema((joi) => joi.valid(...KIND_NAMES), `one of ${KIND_NAMES.join(', ')}`);

const when = lazySchema((joi) =>
  joi.object().when('.kind', {
    switch: KIND_NAMES.map((kind) => ({ is: kind, then: KINDS[kind].schema(joi) })),
    otherwise: joi
      .object({
        kind: kindName(joi).required(),
      })
      .unknown(),
  }),
);

const reads = lazySchema((joi) =>
  joi
    .object({
      fields: labels(joi),
      roles: joi
        .array()
        .items(joi.valid(...ROW_ROLES))
        .min(1),
      cells: joi
        .string()
        .custom((text: string, helpers) =>
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

const paints = lazySchema<Rule['paints']>(
  (joi) => joi.alternatives().try(joi.valid('cell', 'record'), joi.object({ fields: labels(joi).required() })),
  '"cell", "record" or { "fields": [label...] }',
);

const trials = lazySchema((joi) =>
  joi.array().items(
    joi.object({
      value: joi.alternatives(joi.string().allow(''), joi.number(), joi.boolean()).allow(null).required(),
      expect: joi.alternatives(joi.boolean(), joi.string(), joi.number()).allow(null).required(),
    }),
  ),
);

/** One rule, as files and changes give it. Absent `on` is true, absent `settles` false, absent `name` the id. */
export const ruleSchema = lazySchema<Rule>((joi) =>
  joi
    .object<Rule>({
      id: joi.string().min(1).max(200).required(),
      name: joi.string().max(200).default(joi.ref('id')),
      on: joi.boolean().default(true),
      settles: joi.boolean().default(false),
      reads: reads(joi).required(),
      when: when(joi).required(),
      paints: paints(joi).default('cell'),
      look: lookSchema(joi),
      note: joi.string().allow('').max(500),
      group: joi.string().trim().min(1).max(100),
      trials: trials(joi),
      quiet: quietSchema(joi),
    })
    .custom((rule: Rule, helpers) => {
      const mistake = rearmMistake(rule);
      return mistake === null ? rule : helpers.message({ custom: `{{#label}}: ${mistake}` });
    }),
);

/** The names of saved looks that a rule refers to. */
export function savedLooksOf(rule: Rule): string[] {
  return [rule.look, ...(kindOf(rule.when).outcomeLooks(rule.when) ?? [])].flatMap((look) => look?.look ?? []);
}
