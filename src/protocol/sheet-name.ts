import Joi from 'joi';

/** The name of a sheet. */
export const sheetNameSchema = Joi.string().trim().max(120).required();
