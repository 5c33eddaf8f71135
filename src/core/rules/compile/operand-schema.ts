import type Joi from 'joi';
import { lazySchema, type SchemaOf } from '../../lazy-schema';
import { GONE, parseAddress } from '../../sheet/address';
import type { Operand, RuleReferences } from '../terms';
import { formulaMistake } from './formula-reader';

/**
 * A formula in a rule. One that cannot be parsed is bad input, reported with the character where something else was
 * expected.
 */
export const formulaSchema = lazySchema<string>((joi) =>
  joi.string().custom((text: string, helpers) => {
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
): SchemaOf<Operand> {
  const expected = `${literals.map((type) => ({ number: 'a number', string: 'a text', boolean: 'true or false' })[type]).join(', ')}, { "cell": "F4" }, { "formula": "=..." }${field === 'with-fields' ? ' or { "field": label }' : ''}`;
  return lazySchema<Operand>((joi) => {
    const outright = literals.map((type) =>
      (type === 'number' ? joi.number() : type === 'string' ? joi.string().min(1) : joi.boolean()).strict(),
    );
    return joi
      .alternatives()
      .try(
        ...outright,
        joi.object({ cell: joi.string().required().custom(checkAddress) }),
        joi.object({ formula: formulaSchema(joi).required() }),
        ...(field === 'with-fields'
          ? [joi.object({ field: joi.string().required(), times: joi.number().strict(), plus: joi.number().strict() })]
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
