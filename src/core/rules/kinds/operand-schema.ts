import Joi from 'joi';
import { lazySchema } from '../../lazy-schema';
import { parseAddress } from '../../sheet/address';
import type { FieldId } from '../../sheet/ids';
import type { Operand } from '../rule';

/** Operand as rule files give it; `literals` are the JSON types that the condition takes outright. */
export function operandSchema(literals: readonly ('number' | 'string' | 'boolean')[]): Joi.AnySchema<Operand> {
  const expected = `${literals.map((type) => ({ number: 'a number', string: 'a text', boolean: 'true or false' })[type]).join(', ')}, { "cell": "F4" } or { "field": label }`;
  return lazySchema<Operand>(() => {
    const outright = literals.map((type) => (type === 'number' ? Joi.number() : type === 'string' ? Joi.string().min(1) : Joi.boolean()).strict());
    return Joi.alternatives().try(
      ...outright,
      Joi.object({ cell: Joi.string().required().custom(checkAddress) }),
      Joi.object({ field: Joi.string().required(), times: Joi.number().strict(), plus: Joi.number().strict() }),
    );
  }, expected);
}

function checkAddress(text: string, helpers: Joi.CustomHelpers): string | Joi.ErrorReport {
  return parseAddress(text) ? text : helpers.error('any.invalid');
}

/** The operand with the field it names replaced. */
export function mapOperand(operand: Operand, replace: (field: FieldId) => FieldId): Operand {
  return typeof operand === 'object' && 'field' in operand ? { ...operand, field: replace(operand.field) } : operand;
}
