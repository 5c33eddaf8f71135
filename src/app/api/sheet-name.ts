import Joi from 'joi';

/** The name of a sheet, as requests give it. */
export const sheetName = Joi.object<{ name: string }>({
  name: Joi.string().trim().max(120).required(),
}).label('sheet');
