import Joi from 'joi';
import { sheetNameSchema } from '../../protocol/sheet-name';

/** The name of a sheet, as requests give it. */
export const sheetName = Joi.object<{ name: string }>({
  name: sheetNameSchema,
}).label('sheet');
