import type Joi from 'joi';

/** Messages for a Joi schema with several shapes: one sentence that says what was expected. Braces are not variables here. */
export function mustBe(expected: string): Joi.LanguageMessages {
  const sentence = `{{#label}} must be ${expected.replace(/[{}]/g, String.raw`\$&`)}`;
  return {
    'alternatives.types': sentence,
    'alternatives.match': sentence,
    'alternatives.any': sentence,
    'any.only': sentence,
    'object.base': sentence,
  };
}
