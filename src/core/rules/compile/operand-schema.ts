import Joi from 'joi';
import { lazySchema } from '../../lazy-schema';
import { GONE, parseAddress } from '../../sheet/address';
import type { Operand, RuleReferences } from '../terms';
import { formulaMistake } from './formula-reader';

/**
 * A formula in a rule. One that cannot be parsed is bad input, reported with the character where something else was
 * expected.
 */
export const formulaSchema = lazySchema<string>(() =>
  Joi.string().custom((text: string, helpers) => {
    const mistake = formulaMistake(text);
    return mistake === undefined
      ? text
      : helpers.message({ custom: `{{#label}}: ${mistake.replace(/[{}]/g, String.raw`\$&`)}` });
  }),
);

/**
 * Operand as rule files give it; `literals` are the JSON types that the condition takes outright, `field` leaves out
 * fields of the row.
 */
export function operandSchema(
  literals: readonly ('number' | 'string' | 'boolean')[],
  field: 'with-fields' | 'no-fields' = 'with-fields',
): Joi.AnySchema<Operand> {
  const expected = `${literals.map((type) => ({ number: 'a number', string: 'a text', boolean: 'true or false' })[type]).join(', ')}, { "cell": "F4" }, { "formula": "=..." }${field === 'with-fields' ? ' or { "field": label }' : ''}`;
  return lazySchema<Operand>(() => {
    const outright = literals.map((type) =>
      (type === 'number' ? Joi.number() : type === 'string' ? Joi.string().min(1) : Joi.boolean()).strict(),
    );
    return Joi.alternatives().try(
      ...outright,
      Joi.object({ cell: Joi.string().required().custom(checkAddress) }),
      Joi.object({ formula: formulaSchema.required() }),
      ...(field === 'with-fields'
        ? [Joi.object({ field: Joi.string().required(), times: Joi.number().strict(), plus: Joi.number().strict() })]
        : []),
    );
  }, expected);
}

function checkAddress(text: string, helpers: Joi.CustomHelpers): string | Joi.ErrorReport {
  return text === GONE || parseAddress(text) ? text : helpers.error('any.invalid');
}

/** The operand with what it names replaced. */
export function mapOperand(operand: Operand, to: RuleReferences): Operand {
  if (typeof operand !== 'object') return operand;
  if ('cell' in operand) return { cell: to.cells(operand.cell) };
  if ('formula' in operand) return { formula: to.formula(operand.formula) };
  return { ...operand, field: to.field(operand.field) };
}
