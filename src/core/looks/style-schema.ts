import Joi from 'joi';
import { lazySchema } from '../lazy-schema';
import { borderSideSchema, hexSchema } from './look-schema';
import { SIDES } from './look';
import type { Style } from './style';

/** Ordinary formatting as changes give it. */
export const styleSchema = lazySchema<Style>(() =>
  Joi.object({
    fill: hexSchema,
    text: hexSchema,
    bold: Joi.boolean(),
    italic: Joi.boolean(),
    underline: Joi.boolean(),
    strike: Joi.boolean(),
    border: Joi.object(Object.fromEntries(SIDES.map((side) => [side, borderSideSchema]))),
    number: Joi.string().max(64),
    align: Joi.valid('start', 'center', 'end'),
    stand: Joi.valid('top', 'middle', 'bottom'),
    wrap: Joi.boolean(),
    sizePx: Joi.number().integer().min(8).max(48),
    family: Joi.valid('plain', 'serif', 'fixed'),
  }),
);
