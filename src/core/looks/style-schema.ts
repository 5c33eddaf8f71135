import { lazySchema } from '../lazy-schema';
import { borderSideSchema, hexSchema } from './look-schema';
import { SIDES } from './look';
import type { Style } from './style';

/** Ordinary formatting as changes give it. */
export const styleSchema = lazySchema<Style>((joi) =>
  joi.object({
    fill: hexSchema(joi),
    text: hexSchema(joi),
    bold: joi.boolean(),
    italic: joi.boolean(),
    underline: joi.boolean(),
    strike: joi.boolean(),
    border: joi.object(Object.fromEntries(SIDES.map((side) => [side, borderSideSchema(joi)]))),
    number: joi.string().max(64),
    align: joi.valid('start', 'center', 'end'),
    stand: joi.valid('top', 'middle', 'bottom'),
    wrap: joi.boolean(),
    sizePx: joi.number().integer().min(8).max(48),
    family: joi.valid('plain', 'serif', 'fixed'),
  }),
);
