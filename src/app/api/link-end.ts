import Joi from 'joi';

/** When a link ends, in milliseconds of the Unix epoch; null for never. */
export const linkEnd = Joi.number().strict().integer().min(0).max(8.64e15).allow(null);
