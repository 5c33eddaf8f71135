import Joi from 'joi';

/**
 * Whether a text may be the id of something in a sheet: letters, digits, `_` and `-`. The names that every object has
 * by itself, such as `constructor` and `__proto__`, may not: what is looked up by them would be found where nothing was
 * put.
 */
export const isContentId = (text: string): boolean => /^[\w-]{1,64}$/.test(text) && !(text in Object.prototype);

/** An id as messages and addresses name it. */
export const idSchema = Joi.string()
  .pattern(/^[\w-]+$/)
  .max(64)
  .custom((text: string, helpers) =>
    isContentId(text)
      ? text
      : helpers.message({ custom: '{{#label}} must not be a name that every object has, such as constructor' }),
  );
